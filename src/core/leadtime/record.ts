import { type BusinessDate, daysBetween } from '@/core/calendar';
import { type SampleStatistics, sampleStatistics } from './statistics';

/** One line that came: ordered, promised by the supplier (if it was), received. */
export type Delivery = {
  readonly ordered: BusinessDate;
  readonly promised: BusinessDate | null;
  readonly received: BusinessDate;
};

export type DeliveryRecord = {
  /** Calendar days from order to receipt; null without a delivery. */
  readonly days: SampleStatistics | null;
  /** Lines that had a promise, and those of them that came on its day or before. */
  readonly promised: number;
  readonly onTime: number;
};

/** How long a supplier takes and how often it keeps its word, by line. Source: common practice (on time by line).
 *  Units: calendar days, unrounded. */
export function deliveryRecord(deliveries: readonly Delivery[]): DeliveryRecord {
  const promised = deliveries.filter((d) => d.promised !== null);
  return {
    days: sampleStatistics(deliveries.map((d) => daysBetween(d.ordered, d.received))),
    promised: promised.length,
    onTime: promised.filter((d) => d.received <= (d.promised as BusinessDate)).length,
  };
}
