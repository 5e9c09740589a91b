/** The heat lens: loaded when there is heat to show. */
export { evenField, fieldAt, paintHeat } from './heatLayer';
export { default as HeatScale } from './HeatScale.svelte';
