import { ScanWatch } from './scan';

/** Types a text with so many milliseconds between the keys, then Enter. */
function typed(watch: ScanWatch, text: string, everyMs: number, from = 1000) {
  let at = from;
  for (const key of text) {
    expect(watch.key(key, at)).toBeNull();
    at += everyMs;
  }
  return watch.key('Enter', at);
}

test('a code at the speed of a scanner is a scan, the same typed by hand is not', () => {
  expect(typed(new ScanWatch(), '4006381333931', 12)).toEqual({ code: '4006381333931' });
  expect(typed(new ScanWatch(), '4006381333931', 60)).toBeNull();
  expect(typed(new ScanWatch(), '4006381', 12)).toBeNull();
});

test('a hand before, between and after: only the quick run counts', () => {
  const watch = new ScanWatch();
  watch.key('1', 0);
  watch.key('2', 200);
  expect(typed(watch, '40063813', 10, 500)).toEqual({ code: '40063813' });
  expect(typed(watch, '12', 90, 2000)).toBeNull();
  expect(typed(watch, 'ABCDEFGH', 5, 4000)).toEqual({ code: 'ABCDEFGH' });
});

test('capitals come with Shift between them; another key ends the run; a late Enter is a hand', () => {
  const watch = new ScanWatch();
  let at = 0;
  for (const key of 'QYC-0001-AB') {
    watch.key('Shift', at);
    watch.key(key, at + 4);
    at += 9;
  }
  expect(watch.key('Enter', at)).toEqual({ code: 'QYC-0001-AB' });
  at += 1000;
  const quick = (key: string) => {
    at += 5;
    watch.key(key, at);
  };
  for (const key of ['1', '2', '3', '4', 'Tab', '5', '6', '7', '8']) quick(key);
  expect(watch.key('Enter', at + 5)).toBeNull();
  for (const key of '12345678') quick(key);
  expect(watch.key('Enter', at + 400)).toBeNull();
});
