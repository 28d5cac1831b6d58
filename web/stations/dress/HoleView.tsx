import {
  drawFeed,
  findFreeTurn,
  findStandard,
  setBeside,
  setDrill,
  setEnd,
  setFeed,
  setHole,
  toCount,
  type LoomNode,
} from 'wattograph-core';
import { useFindings, useJobStore, type PlannedLoom } from '../../client/jobContext';
import { useShop } from '../../client/shopContext';
import { LengthField } from '../../ui/fields/LengthField';
import { NumberField } from '../../ui/fields/NumberField';
import { Pick } from '../../ui/fields/Pick';
import { FindingLines } from '../../ui/findings/FindingLine';
import { StackPicture } from '../../ui/StackPicture';
import styles from './Dress.module.css';

const WAY_WORDS = { outward: 'what lies beyond it', inward: 'the part with the datum' } as const;
const PIN_WORDS = { bench: 'on the bench', vehicle: 'in the vehicle' } as const;
/** room before or behind a panel; empty: nobody measured it */
const OF_ROOM = { unit: 'mm', least: 0, most: 5000, canBeEmpty: true } as const;
const AS_WORDS = { housing: 'with its housing', rings: 'with its rings', wires: 'as wires, taped' } as const;

/** One hole and how the loom goes through it: part by part in its order, drawn in the bore, and where each is closed. */
export function HoleView({ planned, nodeId }: { planned: PlannedLoom; nodeId: string }) {
  const store = useJobStore();
  const { loom, loomId, plan } = planned;
  const feed = plan.feeds.find((one) => one.nodeId === nodeId)!;
  const { name } = loom.nodes[nodeId]!;
  const nameOf = (endId: string) => loom.ends[endId]!.name;
  const findings = useFindings().filter(
    (one) => one.loomId === loomId && one.code.startsWith('RO') && one.places.some(({ kind, id }) => kind === 'node' && id === nodeId),
  );
  const waits = feed.pieces.filter(({ goesAs, id }) => goesAs === 'wires' && loom.ends[id]!.kind !== 'tail').length;
  const freeFrom = findFreeTurn(feed);
  const isClamped = loom.clampedBy !== null;
  return (
    <>
      <h2>{name}</h2>
      <div className={styles.lead}>
        Bore{' '}
        <LengthField
          label={`Bore of ${name}`}
          value={feed.boreMm}
          onChange={(mm) => mm !== null && store.edit(setHole({ loomId, nodeId, name }, mm))}
        />{' '}
        mm, {Number((feed.leaveMm - feed.besideMm).toFixed(1))} mm of it stays free
        {feed.besideMm > 0 && `, ${feed.besideMm.toFixed(1)} mm are taken by what is led through before`}; the whole bundle is{' '}
        {feed.wholeMm.toFixed(1)} mm. Through it goes{' '}
        {isClamped ? (
          WAY_WORDS[feed.direction]
        ) : (
          <Pick<NonNullable<LoomNode['feed']>>
            label={`What is led through ${name}`}
            value={loom.nodes[nodeId]!.feed}
            none={`computed: ${WAY_WORDS[feed.direction]}`}
            options={(['outward', 'inward'] as const).map((value) => ({ value, label: WAY_WORDS[value] }))}
            onChange={(way) => store.edit(setFeed({ loomId, nodeId, name }, way))}
          />
        )}{' '}
        ({feed.because}).{' '}
        {feed.offIds.length === 0
          ? `All of it passes a hole of ${feed.leastBoreMm} mm or more${freeFrom === null ? '' : `; from ${freeFrom} on in any order`}.`
          : ''}
      </div>
      <HoleFacts planned={planned} nodeId={nodeId} />
      <FindingLines findings={findings} />
      {feed.pieces.length > 0 && (
        <StackPicture
          drawing={drawFeed(feed, nameOf)}
          words={`${name}: ${toCount(feed.pieces.length, 'part')} in the order in which they are led through`}
        />
      )}
      <table className={styles.feed} aria-label={`Parts that are led through ${name}`}>
        <thead>
          <tr>
            <th scope="col">no.</th>
            <th scope="col">end</th>
            <th scope="col">goes through</th>
            <th scope="col">mm</th>
            <th scope="col">its contacts go in</th>
          </tr>
        </thead>
        <tbody>
          {feed.pieces.map(({ id, goesAs, needMm, passes }, at) => (
            <tr key={id}>
              <td className="mono">{at + 1}</td>
              <td>{nameOf(id)}</td>
              <td>{AS_WORDS[goesAs]}</td>
              <td className={passes ? 'mono' : styles.alarm}>{needMm.toFixed(1)}</td>
              <td>
                {loom.ends[id]!.kind === 'tail' ? (
                  'bare tails'
                ) : (
                  <Pick
                    label={`Where ${nameOf(id)} is closed`}
                    value={loom.ends[id]!.pinAt}
                    options={(['bench', 'vehicle'] as const).map((value) => ({ value, label: PIN_WORDS[value] }))}
                    onChange={(pinAt) => pinAt && store.edit(setEnd({ loomId, endId: id, name: nameOf(id) }, 'pinAt', pinAt))}
                  />
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {feed.unknownIds.length > 0 && (
        <p className={styles.alarm}>Size not known, left out of the order: {feed.unknownIds.map(nameOf).join(', ')}.</p>
      )}
      {waits > 0 && (
        <p>
          {toCount(waits, 'end')} closed in the vehicle: bunched and rung on the bench, pinned behind the hole, rung once more before
          anybody signs.
        </p>
      )}
    </>
  );
}

/** Whether the hole is there, with the room for a drill where it is not; and whether another loom goes through it. */
function HoleFacts({ planned: { job, loom, loomId }, nodeId }: { planned: PlannedLoom; nodeId: string }) {
  const shop = useShop();
  const store = useJobStore();
  const { name, drill, beside } = loom.nodes[nodeId]!;
  const { drillMm, drillThroughMm } = findStandard(job, shop);
  const at = { loomId, nodeId, name };
  const holes = Object.entries(job.looms).flatMap(([id, other]) =>
    id === loomId
      ? []
      : Object.entries(other.nodes).flatMap(([otherId, one]) =>
          one.holeMm !== null && one.beside === null ? [{ value: `${id}/${otherId}`, label: `${one.name}, ${other.name}` }] : [],
        ),
  );
  return (
    <div className={styles.drill}>
      <Pick
        label={`Whether ${name} is there`}
        value={drill === null ? 'there' : 'make'}
        options={[
          { value: 'there', label: 'the hole is there' },
          { value: 'make', label: 'the hole is to be made' },
        ]}
        onChange={(is) => store.edit(setDrill(at, is === 'make' ? { roomMm: null, behindMm: null } : null))}
      />
      {drill && (
        <>
          <span>
            room in front{' '}
            <NumberField
              label={`Room in front of ${name}`}
              value={drill.roomMm}
              {...OF_ROOM}
              onChange={(roomMm) => store.edit(setDrill(at, { ...drill, roomMm }))}
            />{' '}
            mm (drill and saw take {drillMm})
          </span>
          <span>
            free behind{' '}
            <NumberField
              label={`Free behind ${name}`}
              value={drill.behindMm}
              {...OF_ROOM}
              onChange={(behindMm) => store.edit(setDrill(at, { ...drill, behindMm }))}
            />{' '}
            mm (the saw comes out {drillThroughMm})
          </span>
        </>
      )}
      {(holes.length > 0 || beside !== null) && (
        <span>
          it is{' '}
          <Pick
            label={`Which hole ${name} is`}
            value={beside && `${beside.loomId}/${beside.nodeId}`}
            none="a hole of its own"
            options={holes}
            onChange={(value) => {
              const [otherLoom, otherNode] = value?.split('/') ?? [];
              store.edit(setBeside(at, otherLoom && otherNode ? { loomId: otherLoom, nodeId: otherNode } : null));
            }}
          />
        </span>
      )}
    </div>
  );
}
