import { Table } from '@mantine/core';
import { DRESS_ROLE_WORDS, type DressPiece } from 'wattograph-core';
import styles from './Dress.module.css';

/** Pieces from the wire outwards: the order in which they slide on, and in which they are shrunk. */
export function PieceList({ pieces, from, label }: { pieces: readonly DressPiece[]; from: string; label: string }) {
  return (
    <Table className={styles.compare} aria-label={label}>
      <thead>
        <tr>
          <th>no.</th>
          <th className={styles.words}>what</th>
          <th className={styles.words}>part</th>
          <th>cut mm</th>
          <th>mm of {from}</th>
          <th>on mm</th>
          <th>over it mm</th>
          <th>g</th>
        </tr>
      </thead>
      <tbody>
        {pieces.map((piece, at) => (
          <tr key={at}>
            <td>{at + 1}</td>
            <th scope="row">
              {DRESS_ROLE_WORDS[piece.role]}
              {piece.isLined ? ', lined' : ''}
            </th>
            <td className={styles.reason}>{piece.itemName}</td>
            <td>{piece.table === 'coverings' ? piece.cutMm : '–'}</td>
            <td>
              {Math.round(piece.fromMm)} to {Math.round(piece.toMm)}
            </td>
            <td>{piece.underMm.toFixed(1)}</td>
            <td>{piece.overMm.toFixed(1)}</td>
            <td>{piece.massG.toFixed(1)}</td>
          </tr>
        ))}
      </tbody>
    </Table>
  );
}
