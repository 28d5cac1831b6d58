import { Table, TextInput } from '@mantine/core';
import { useMemo, useState } from 'react';
import {
  COVERING_WORDS,
  compareCoverings,
  findStandard,
  findSurroundings,
  planClips,
  readClipPlaces,
  setClips,
  setCovering,
  toCount,
  type CoveringOption,
} from 'wattograph-core';
import { useFindings, useJobStore, type PlannedLoom } from '../../client/jobContext';
import { useShop } from '../../client/shopContext';
import controls from '../../ui/controls.module.css';
import { askReason } from '../../ui/fields/askReason';
import { FindingLines } from '../../ui/findings/FindingLine';
import { WhyCovering } from '../../ui/section/WhyCovering';
import styles from './Dress.module.css';

/** One run: its covering with why, and beside it every other that the shop has, each with what it comes to and why it is not taken. */
export function RunView({ planned, segmentId }: { planned: PlannedLoom; segmentId: string }) {
  const shop = useShop();
  const store = useJobStore();
  const { job, loom, loomId, plan } = planned;
  const covering = plan.coverings.find((one) => one.segmentId === segmentId)!;
  const bundle = plan.bundles.find((one) => one.segmentId === segmentId)!;
  const { nearNodeId, farNodeId, lengthMm } = plan.tree.segments[segmentId]!;
  const standard = findStandard(job, shop);
  const options = useMemo(
    () => compareCoverings({ job, loom, tree: plan.tree, catalogue: shop, standard }, covering, bundle.odMm),
    [job, loom, plan, shop, standard, covering, bundle],
  );
  const zone = findSurroundings(job.zones, loom.segments[segmentId]!, standard.hotTickC);
  const findings = useFindings().filter(
    (one) =>
      one.loomId === loomId && one.places.some(({ kind, id }) => kind === 'segment' && id === segmentId) && one.code.startsWith('DR'),
  );
  const name = `${loom.nodes[nearNodeId]!.name} to ${loom.nodes[farNodeId]!.name}`;
  const take = (option: CoveringOption) =>
    askReason(`Why ${COVERING_WORDS[option.kind]} on ${name}?`, (reason) =>
      store.edit(setCovering({ loomId, segmentId, name }, { kind: option.kind, itemId: null, reason })),
    );
  return (
    <>
      <h2>{name}</h2>
      <p className={styles.lead}>
        {Math.round(lengthMm)} mm,{' '}
        {toCount(plan.wires.filter(({ pieces }) => pieces.some((piece) => piece.segmentId === segmentId)).length, 'wire')}, bundle{' '}
        {bundle.odMm.toFixed(1)} mm, over its covering {covering.odOutsideMm.toFixed(1)} mm
        {covering.mustPassMm > bundle.odMm + 0.05 && `; on its way it passes ${covering.mustPassMm.toFixed(1)} mm`}.{' '}
        {zone ? toZoneWords(zone) : 'No zone is known here.'}
      </p>
      <FindingLines findings={findings} />
      <div className={styles.why}>
        <WhyCovering planned={planned} bundle={bundle} />
        {loom.segments[segmentId]!.coveringPin && (
          <button type="button" className={controls.button} onClick={() => store.edit(setCovering({ loomId, segmentId, name }, null))}>
            Let it be computed
          </button>
        )}
      </div>
      <ClipsLine planned={planned} segmentId={segmentId} />
      {options.length > 0 && (
        <Table className={styles.compare} aria-label={`Coverings that ${name} could have`}>
          <thead>
            <tr>
              <th>covering</th>
              <th>cut mm</th>
              <th>over it mm</th>
              <th>g</th>
              <th>°C to spare</th>
              <th>{shop.currency ?? 'price'}</th>
              <th>min</th>
              <th>opens</th>
              <th className={styles.words}>why not</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {options.map((option) => (
              <tr key={option.kind} data-taken={option.isTaken}>
                <th scope="row">{option.item?.name ?? COVERING_WORDS[option.kind]}</th>
                <td>{option.cutMm || '–'}</td>
                <td>{option.cutMm ? option.odOutsideMm.toFixed(1) : '–'}</td>
                <td>{option.cutMm ? option.massG.toFixed(1) : '–'}</td>
                <td>{option.item && typeof zone?.ambientC === 'number' ? option.item.limitC - zone.ambientC : '–'}</td>
                <td>{option.price === null || !option.cutMm ? '–' : option.price.toFixed(2)}</td>
                <td>{option.cutMm ? option.minutes.toFixed(1) : '–'}</td>
                <td>{option.item ? (option.item.opens ? 'yes' : 'no') : '–'}</td>
                <td className={styles.reason}>{option.isTaken ? <b>taken</b> : option.whyNot}</td>
                <td>
                  {!option.isTaken && option.problem === null && (
                    <button
                      type="button"
                      className={styles.take}
                      aria-label={`Take ${COVERING_WORDS[option.kind]}`}
                      onClick={() => take(option)}
                    >
                      Take
                    </button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </Table>
      )}
    </>
  );
}

/** What holds the run in the vehicle, and where. */
function ClipsLine({ planned: { job, loom, loomId, plan }, segmentId }: { planned: PlannedLoom; segmentId: string }) {
  const shop = useShop();
  const store = useJobStore();
  const held = useMemo(() => planClips(job, plan, shop), [job, plan, shop]).find((one) => one.segmentId === segmentId);
  if (shop.clips.length === 0) return <p className={styles.lead}>The shop has no clips: nothing is planned that holds it.</p>;
  if (!held) return null;
  const { nearNodeId, farNodeId, lengthMm } = plan.tree.segments[segmentId]!;
  const from = loom.nodes[nearNodeId]!.name;
  const name = `${from} to ${loom.nodes[farNodeId]!.name}`;
  const places = held.atMm.map((at) => Math.round(at)).join(', ');
  const set = (clipsAtMm: number[] | null) => store.edit(setClips({ loomId, segmentId, name }, clipsAtMm));
  return (
    <div className={styles.clips}>
      <p className={styles.lead}>
        {held.atMm.length === 0 ? (
          held.isByHand ? (
            'No clip, as chosen by hand'
          ) : (
            'So short a run is held by what it begins and ends at: no clip'
          )
        ) : (
          <>
            Held by{' '}
            {held.item ? (
              `${held.atMm.length} × ${held.item.name}`
            ) : (
              <b className={styles.alarm}>{toCount(held.atMm.length, 'clip')} that the shop has not</b>
            )}
            {held.isByHand ? ', chosen by hand' : ''}
          </>
        )}{' '}
        (at most {held.everyMm} mm apart, by {held.because}).
        {held.item && held.ambientC === null && ' How hot it gets there is not known.'}
      </p>
      <ClipPlaces key={places} from={from} places={places} lengthMm={lengthMm} onChange={set} />
      {held.isByHand && (
        <button type="button" className={controls.button} onClick={() => set(null)}>
          Let clips be computed
        </button>
      )}
    </div>
  );
}

/** Where clips lie, as mm in a row; kept on Enter or when left, what is no place is not kept and says so. */
function ClipPlaces({
  from,
  places,
  lengthMm,
  onChange,
}: {
  from: string;
  places: string;
  lengthMm: number;
  onChange: (atMm: number[]) => void;
}) {
  const [text, setText] = useState(places);
  const read = readClipPlaces(text, lengthMm);
  const keep = () => {
    if (read.ok && read.value.join(', ') !== places) onChange(read.value);
  };
  return (
    <TextInput
      size="xs"
      label={`Clips, mm from ${from}`}
      placeholder="none"
      value={text}
      error={read.ok ? null : read.message}
      maxLength={800}
      onChange={(event) => setText(event.currentTarget.value)}
      onBlur={keep}
      onKeyDown={(event) => {
        if (event.key === 'Enter') event.currentTarget.blur();
        if (event.key === 'Escape') {
          setText(places);
          event.stopPropagation();
        }
      }}
    />
  );
}

function toZoneWords(zone: NonNullable<ReturnType<typeof findSurroundings>>): string {
  const asks = [
    ...(zone.reopen ? ['must open later'] : []),
    ...(zone.wet ? ['wet'] : []),
    ...(zone.flexing ? ['moves'] : []),
    ...(zone.abrasion ? ['sharp edges'] : []),
    ...(zone.handled ? ['taken in the hand often'] : []),
  ];
  return `${zone.name}${zone.ambientC === null ? '' : `, ${zone.ambientC} °C`}: ${asks.join(', ') || 'asks for nothing in particular'}.`;
}
