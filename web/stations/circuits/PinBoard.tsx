import { Table } from '@mantine/core';
import { Fragment, memo } from 'react';
import { toColourWords, type DeviceLine, type DevicePin, type Job } from 'wattograph-core';
import { Swatch } from '../../ui/Swatch';
import { NextAction } from '../../ui/NextAction';
import styles from './Circuits.module.css';

const COLUMNS = ['feed', 'return', 'signal', 'pair and screen'] as const;
type Column = (typeof COLUMNS)[number];

function toColumn({ need }: DevicePin): Column {
  if (need.kind === 'supply' || need.kind === 'sensor-supply') return 'feed';
  if (need.kind === 'power-ground' || need.kind === 'sensor-ground') return 'return';
  if (need.kind === 'screen' || need.kind === 'data' || (need.twistWith !== null && need.kind === 'signal')) return 'pair and screen';
  return 'signal';
}

/** Devices down the side, what each pin needs across: an open peg is a pin that nothing serves. */
export const PinBoard = memo(function PinBoard({
  lines,
  job,
  isWrong,
  chosen,
  onPick,
}: {
  lines: readonly DeviceLine[];
  job: Job;
  isWrong: (pin: DevicePin) => string | undefined;
  chosen: { loomId: string; endId: string; cavity: string } | null;
  onPick: (pin: DevicePin) => void;
}) {
  if (lines.length === 0)
    return (
      <NextAction
        words="Here every pin of every device stands with what it needs and where it leads; one that nothing serves is an open peg. There are none yet: devices get theirs from their kind in Brief, or pin by pin in Ends."
        at="brief?tab=devices"
        action="Add devices in Brief"
      />
    );
  return (
    <Table unstyled className={styles.pegs}>
      <thead>
        <tr>
          <th>device</th>
          {COLUMNS.map((column) => (
            <th key={column}>{column}</th>
          ))}
        </tr>
      </thead>
      <tbody>
        {lines.map((line, index) => (
          <Fragment key={line.id}>
            {lines[index - 1]?.loomId !== line.loomId && (
              <tr>
                <th colSpan={5} className={styles.loom}>
                  {job.looms[line.loomId]!.name}
                </th>
              </tr>
            )}
            <tr>
              <td className={styles.device}>{line.name}</td>
              {COLUMNS.map((column) => (
                <td key={column}>
                  {line.pins
                    .filter((pin) => toColumn(pin) === column)
                    .map((pin) => (
                      <Peg
                        key={pin.cavity}
                        pin={pin}
                        job={job}
                        code={isWrong(pin)}
                        isChosen={chosen?.loomId === pin.loomId && chosen.endId === pin.endId && chosen.cavity === pin.cavity}
                        onPick={onPick}
                      />
                    ))}
                </td>
              ))}
            </tr>
          </Fragment>
        ))}
      </tbody>
    </Table>
  );
});

function Peg({
  pin,
  job,
  code,
  isChosen,
  onPick,
}: {
  pin: DevicePin;
  job: Job;
  code: string | undefined;
  isChosen: boolean;
  onPick: (pin: DevicePin) => void;
}) {
  const { need, state, colour, host } = pin;
  const where =
    state === 'open'
      ? 'open'
      : state === 'waiting'
        ? 'leads nowhere'
        : state === 'free'
          ? 'not used'
          : `${job.looms[host!.loomId]!.ends[host!.endId]!.name} ${host!.cavity}`;
  return (
    <button
      className={styles.peg}
      data-state={code ? 'wrong' : state}
      aria-pressed={isChosen}
      aria-label={`${job.looms[pin.loomId]!.ends[pin.endId]!.name} pin ${pin.cavity}, ${need.function}: ${where}${code ? `, ${code}` : ''}`}
      title={`${need.function}${colour ? `, ${toColourWords(colour)}` : ''}`}
      onClick={() => onPick(pin)}
    >
      {/* the spaces between are for who hears it */}
      <span className={styles.cavity}>{pin.cavity}</span>{' '}
      {colour ? <Swatch colour={colour} words={false} /> : <span className={styles.hole} />}{' '}
      <span className={styles.function}>{need.function}</span>{' '}
      <span className={styles.where}>
        {/* plug and cavity stay on one line */}
        {where.replace(/ (?=\S+$)/, '\u00a0')}
        {code && <b> {code}</b>}
      </span>
    </button>
  );
}
