import { clearStrip, noteDone, noteUndone, noteUndoRefused, onStrip, onUndone, stripSnapshot } from './done';

afterEach(clearStrip);

test('the last thing done is offered; what came of its undo is said until the next', () => {
  noteDone({ key: 'a', words: '6 bags into the tray' });
  noteDone({ key: 'b', words: 'order made' });
  expect(stripSnapshot()).toEqual({ done: { key: 'b', words: 'order made' }, said: null });
  noteUndone('b', 'The order is back in its tray.');
  expect(stripSnapshot()).toEqual({ done: null, said: { text: 'The order is back in its tray.', fault: false } });
  noteDone({ key: 'c', words: 'a line removed' });
  expect(stripSnapshot().said).toBeNull();
  noteUndoRefused('Otto has worked on this since.');
  expect(stripSnapshot()).toEqual({ done: null, said: { text: 'Otto has worked on this since.', fault: true } });
  clearStrip();
  expect(stripSnapshot()).toEqual({ done: null, said: null });
});

test('lists hear which command was undone, the strip that it has changed; neither after it has left', () => {
  const keys: string[] = [];
  let changes = 0;
  const leaveKeys = onUndone((key) => keys.push(key));
  const leaveStrip = onStrip(() => {
    changes += 1;
  });
  noteDone({ key: 'a', words: 'x' });
  noteUndone('a', 'y');
  noteUndoRefused('z');
  expect([keys, changes]).toEqual([['a'], 3]);
  leaveKeys();
  leaveStrip();
  noteUndone('b', 'y');
  expect([keys, changes]).toEqual([['a'], 3]);
});
