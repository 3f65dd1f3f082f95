import Link from 'next/link';
import { Notice } from '@/ui/frame/states';

export default function NotFound() {
  return (
    <Notice title="There is nothing at this address">
      It may have been put back or never existed.{' '}
      <Link href="/" className="link">
        Go to the start
      </Link>
    </Notice>
  );
}
