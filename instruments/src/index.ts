export { measure, type MeterReading } from './meter.ts';
export { InstrumentError, ScpiClient, type Address } from './scpiClient.ts';
export { SimulatedMeter } from './simulatedMeter.ts';
export { SimulatedSupply } from './simulatedSupply.ts';
export { powerInStages, type PowerSample, startUpOn, type SupplyRun } from './supply.ts';
