/** Version of the form that the bodies of events are written in. 1 named methods by their labels. */
export const EVENT_VERSION = 2 as const;
