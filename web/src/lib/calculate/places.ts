/** The calculators and where they are. */
export const CALCULATORS = [
  { href: '/calculate', name: 'Joint volume' },
  { href: '/calculate/melt', name: 'Melt time' },
  { href: '/calculate/mixture', name: 'Mixture' },
  { href: '/calculate/amount', name: 'Alloy needed' },
  { href: '/calculate/rounds', name: 'Clean-up rounds' },
] as const;
