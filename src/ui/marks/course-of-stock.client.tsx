'use client';

import type { StockCourse as Course } from '@/services/planning/readStockCourse';
import { lastsWords, plural } from '../format';
import { useFormat } from '../format-context.client';
import { useRead } from '../frame/use-read.client';
import { StockCourse } from './stock-course';

/** The chart of a pair's stock in the panel beside it; its room is kept while it loads. */
export function CourseOfStock(props: { itemId: number; locationId: number; unit: string }) {
  const format = useFormat();
  const course = useRead<Course>(`/api/reads/stock-course?item=${props.itemId}&location=${props.locationId}`);
  const units = plural(props.unit, 2_000_000);
  return (
    <div>
      <h3 className="head">
        Eight weeks <span className="font-normal text-muted">{units} on hand</span>
      </h3>
      <div className="min-h-[128px]">
        {course === null && <p className="second">Loading</p>}
        {course === 'failed' && <p className="second">Could not be read just now.</p>}
        {course !== null && course !== 'failed' && <StockCourse course={course} unit={units} format={format} />}
      </div>
      {course !== null && course !== 'failed' && course.perDay > 0 && (
        <p className="second mt-1.5">
          {format.quantity(Math.round(course.perDay / 10_000) * 10_000)} a day, the mean of 91 days without those of
          empty shelves{lastsWords(course.coverDays) && `: lasts ${lastsWords(course.coverDays)}`}
        </p>
      )}
    </div>
  );
}
