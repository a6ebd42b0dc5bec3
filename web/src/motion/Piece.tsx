/** A piece of a drawing on a layer of its own, placed in mm: moving it neither lays out nor paints anything anew. */
import type { ReactNode, Ref } from 'react';
import type { Schemas } from '../api/client';
import classes from './Piece.module.css';

declare module 'react' {
  interface CSSProperties {
    '--ratio'?: number;
  }
}

export interface PieceProps {
  /** What the whole drawing covers. */
  box: Schemas['Box'];
  x: number;
  y: number;
  /** How far the piece goes from its middle. */
  reach: number;
  /** Height of letters and thickness of lines, in mm. */
  size: number;
  ref: Ref<SVGSVGElement>;
  children: ReactNode;
}

export function Piece({ box, x, y, reach, size, ref, children }: PieceProps) {
  const [wide, high] = [box.right_mm - box.left_mm, box.top_mm - box.bottom_mm];
  return (
    <svg
      ref={ref}
      aria-hidden="true"
      className={classes.piece}
      viewBox={`${-reach} ${-reach} ${2 * reach} ${2 * reach}`}
      style={{
        left: `${(100 * (x - reach - box.left_mm)) / wide}%`,
        top: `${(100 * (box.top_mm - y - reach)) / high}%`,
        width: `${(200 * reach) / wide}%`,
        height: `${(200 * reach) / high}%`,
        fontSize: size,
      }}
    >
      {children}
    </svg>
  );
}

/** What does not move on a sheet, drawn in mm with y downwards from the crank's axis. */
export function Still({ box, size, children }: Pick<PieceProps, 'box' | 'size' | 'children'>) {
  return (
    <svg
      aria-hidden="true"
      className={classes.still}
      viewBox={`${box.left_mm} ${-box.top_mm} ${box.right_mm - box.left_mm} ${box.top_mm - box.bottom_mm}`}
      style={{ fontSize: size }}
    >
      {children}
    </svg>
  );
}

export interface SheetProps {
  box: Schemas['Box'];
  mirrored: boolean;
  label: string;
  children: ReactNode;
}

/** What pieces lie on: as large as there is room, to scale. */
export function Sheet({ box, mirrored, label, children }: SheetProps) {
  const ratio = (box.right_mm - box.left_mm) / (box.top_mm - box.bottom_mm);
  return (
    <div className={classes.room}>
      <div
        className={classes.sheet}
        data-mirrored={mirrored}
        style={{ '--ratio': ratio }}
        role="img"
        aria-label={label}
      >
        {children}
      </div>
    </div>
  );
}

/** Moves a piece by mm and turns it about its middle. */
export function movePiece(piece: SVGSVGElement | null, reach: number, x: number, y: number, deg: number): void {
  const share = (mm: number) => `${((100 * mm) / (2 * reach)).toFixed(4)}%`;
  if (piece) piece.style.transform = `translate(${share(x)}, ${share(y)}) rotate(${deg.toFixed(3)}deg)`;
}
