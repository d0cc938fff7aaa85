'use client';
import { Button } from '@/ui/controls/Button';
import { Actions, Dialog } from '@/ui/overlay/Dialog';
import { Ruled } from '@/ui/text/Sheet';

const KEYS: readonly (readonly [place: string, keys: readonly (readonly [key: string, does: string])[]])[] = [
  [
    'Everywhere',
    [
      ['/', 'find a name, an account or a command'],
      ['?', 'show these keys'],
      [']', 'look a week further ahead'],
      ['[', 'look a week less ahead'],
      ['T', 'back to today'],
      ['Esc', 'close a dialog, leave a cell as it was'],
    ],
  ],
  [
    'In the ledger and other grids',
    [
      ['arrows, Page Up, Page Down, Home, End', 'move from cell to cell'],
      ['Space', 'choose a name; in the headings: choose all'],
      ['Shift with Space or up, down', 'choose a range'],
      ['Ctrl A', 'choose all'],
      ['Enter', 'edit a cell, or open the name; in the headings: sort'],
    ],
  ],
  [
    'On a lifecycle strip and a price ladder',
    [
      ['arrows', 'a day, or a small step of the price'],
      ['Page Up, Page Down', 'a month, or a larger step'],
    ],
  ],
  ['In the list of prices', [['up, down', 'the same price of the next name']]],
];

/** All keys of the program. */
export function Keys({ isOpen, onClose }: { isOpen: boolean; onClose: () => void }) {
  return (
    <Dialog title="Keys" isOpen={isOpen} onClose={onClose}>
      {KEYS.map(([place, keys]) => (
        <section key={place}>
          <h3>{place}</h3>
          <Ruled aria-label={place}>
            <tbody>
              {keys.map(([key, does]) => (
                <tr key={key}>
                  <td style={{ width: '42%' }}>
                    <kbd>{key}</kbd>
                  </td>
                  <td>{does}</td>
                </tr>
              ))}
            </tbody>
          </Ruled>
        </section>
      ))}
      <Actions>
        <Button onPress={onClose}>Close</Button>
      </Actions>
    </Dialog>
  );
}
