import type { ReactNode } from 'react';

export interface GridColumn<R> {
  readonly id: string;
  readonly heading: ReactNode;
  /** The heading in words, for screen readers. */
  readonly label: string;
  readonly width: number;
  readonly figures?: boolean;
  readonly sortable?: boolean;
  readonly render: (row: R) => ReactNode;
}

export interface GridProps<R> {
  readonly label: string;
  readonly columns: readonly GridColumn<R>[];
  readonly total: number;
  /** The row at a place, or `undefined` while it is on its way. */
  readonly rowAt: (place: number) => R | undefined;
  readonly idOf: (row: R) => number;
  /** Rises when the order changes: the list goes back to its top. */
  readonly order: number;
  readonly onWindow: (from: number, to: number) => void;
  readonly sort: { readonly id: string; readonly descending: boolean };
  readonly onSort: (id: string) => void;
  readonly isChosen: (id: number) => boolean;
  readonly chosen: number;
  /** Chooses the row at `place`; with `range`, everything from the last chosen to it. */
  readonly onChoose: (place: number, range: boolean) => void;
  readonly onChooseAll: () => void;
  /** The cell that the keys or the pointer are at now; row -1 are the headings. */
  readonly onActive?: (place: number, column: string) => void;
  /** The column that opens its row with one click; the others on a double one. */
  readonly opensBy?: string;
  /** How high a row is, in pixels; 32 unless it is said. */
  readonly rowHeight?: number;
  /** Enter, F2 or a double click on a cell. */
  readonly onOpen: (place: number, column: string) => void;
  readonly onWidth: (id: string, width: number) => void;
  readonly empty: ReactNode;
}
