export { type LeadTimeInUse, type LeadTimeRule, leadTimeInUse, type MeasuredLeadTime } from './inUse';
export { type Delivery, type DeliveryRecord, deliveryRecord } from './record';
export { quantile1, quantile7, type SampleStatistics, sampleStatistics } from './statistics';
