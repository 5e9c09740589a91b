/** Stefan–Boltzmann constant, W/(m²·K⁴) (CODATA 2018). */
export const STEFAN_BOLTZMANN = 5.670374419e-8;
/** 0 °C in kelvin. */
export const ZERO_CELSIUS_K = 273.15;
