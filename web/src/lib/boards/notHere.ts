/** The answer to "which board?" of somebody whose board nobody has drawn yet. */
export const NOT_HERE = 'not here yet';
