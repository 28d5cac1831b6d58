'use client';

import { Button } from '@mantine/core';
import { useDisclosure } from '@mantine/hooks';
import { useSearchParams } from 'next/navigation';
import { useState } from 'react';
import { compareIds, findFamily, removeLoomEnd, toCount } from 'wattograph-core';
import { useShop } from '../../client/shopContext';
import { useFindings, useJobStore, usePlannedLoom, type PlannedLoom } from '../../client/jobContext';
import { useLoomId } from '../../ui/JobShell';
import { FindingLines } from '../../ui/findings/FindingLine';
import { FacePicture } from '../../ui/FacePicture';
import bundle from '../bundle/Bundle.module.css';
import { AddEndDialog } from '../bundle/RouteDialogs';
import { Templates } from './Templates';
import styles from './Ends.module.css';
import { CavitiesTable } from './CavitiesTable';
import { ColoursDialog } from './ColoursDialog';
import { EndFacts } from './EndFacts';
import { FamilyDialog } from './FamilyDialog';

/** Each end by itself: its face, large, and what goes into every cavity. */
export function EndsStation() {
  const planned = usePlannedLoom(useLoomId());
  const wanted = useSearchParams().get('end');
  const findings = useFindings();
  const store = useJobStore();
  const [picked, setPicked] = useState<{ end: string | null; at: string | null } | null>(null);
  const chosen = picked && picked.at === wanted ? picked.end : wanted;
  const setChosen = (end: string | null) => setPicked({ end, at: wanted });
  const [side, setSide] = useState<'wire' | 'mating'>('wire');
  const [adding, addDialog] = useDisclosure(false);
  const [inventing, familyDialog] = useDisclosure(false);
  const [colouring, coloursDialog] = useDisclosure(false);
  if (!planned) return <p className={bundle.wait}>Computing the plan …</p>;
  const { loom, loomId, plan } = planned;
  const ids = Object.keys(loom.ends).sort(
    (a, b) => plan.tree.nodes[loom.ends[a]!.nodeId]!.distanceMm - plan.tree.nodes[loom.ends[b]!.nodeId]!.distanceMm || compareIds(a, b),
  );
  const endId = chosen !== null && loom.ends[chosen] ? chosen : ids[0];
  const openAt = (id: string) =>
    findings.filter(
      (one) => one.loomId === loomId && one.grade !== 'note' && one.places.some((place) => place.kind === 'end' && place.id === id),
    ).length;
  const remove = (id: string) => {
    store.edit(removeLoomEnd({ loomId, endId: id, name: loom.ends[id]!.name }, plan.tree));
    setChosen(null);
  };
  return (
    <div className={styles.station}>
      <nav className={styles.list} aria-label="Ends">
        {ids.map((id) => {
          const count = openAt(id);
          return (
            <button key={id} className={styles.end} aria-current={id === endId} onClick={() => setChosen(id)}>
              <span>{loom.ends[id]!.name}</span>
              {count > 0 && (
                <span style={{ color: 'var(--action)' }} title={toCount(count, 'finding')}>
                  ▲{count}
                </span>
              )}
            </button>
          );
        })}
        {ids.length === 0 && <p className="faint">No ends yet.</p>}
        <div className={styles.tools}>
          <Button size="compact-sm" onClick={addDialog.open}>
            Add end
          </Button>
          <Button size="compact-sm" variant="default" onClick={familyDialog.open}>
            New family
          </Button>
          <Button size="compact-sm" variant="default" onClick={coloursDialog.open} disabled={plan.wires.length === 0}>
            Colours
          </Button>
        </div>
      </nav>
      {endId !== undefined && (
        <EndView
          key={endId}
          planned={planned}
          endId={endId}
          side={side}
          onFlip={() => setSide(side === 'wire' ? 'mating' : 'wire')}
          onRemove={() => remove(endId)}
        />
      )}
      {endId === undefined && (
        <div className={bundle.wait} style={{ gridColumn: 'span 2' }}>
          <p>
            Here each end stands by itself: its face from the wire side in the colours of its wires, and a line a cavity with contact, seal,
            tool and the force it has to bear. Begin with the anchor at the datum; its legs and ends follow.
          </p>
          <Button size="compact-md" variant="default" onClick={addDialog.open}>
            Add the first end
          </Button>
        </div>
      )}
      {adding && <AddEndDialog planned={planned} onClose={addDialog.close} />}
      {colouring && <ColoursDialog planned={planned} onClose={coloursDialog.close} />}
      {inventing && <FamilyDialog job={planned.job} onClose={familyDialog.close} />}
    </div>
  );
}

function EndView({
  planned,
  endId,
  side,
  onFlip,
  onRemove,
}: {
  planned: PlannedLoom;
  endId: string;
  side: 'wire' | 'mating';
  onFlip: () => void;
  onRemove: () => void;
}) {
  const shop = useShop();
  const { loom, plan, job } = planned;
  const end = loom.ends[endId]!;
  const family = end.kind === 'connector' ? findFamily(job, shop, end.familyId) : undefined;
  const here = plan.terminations.filter((one) => one.endId === endId);
  const wires = new Map(plan.wires.map((wire) => [wire.id, wire]));
  const findings = useFindings().filter(
    (one) => one.loomId === planned.loomId && one.places.some((place) => place.kind === 'end' && place.id === endId),
  );
  const plugs = plan.plugs.filter((one) => one.endId === endId);
  return (
    <>
      <section className={styles.face} aria-label={`Face of ${end.name}`}>
        <h2>{end.name}</h2>
        {family ? (
          <>
            <div className={styles.side}>
              <span>{side === 'wire' ? 'WIRE SIDE' : 'MATING SIDE'}</span>
              <button onClick={onFlip}>flip to {side === 'wire' ? 'mating side' : 'wire side'}</button>
            </div>
            <FacePicture
              className={styles.picture}
              family={family}
              side={side}
              colourAt={(cavity) => {
                const used = here.find((one) => one.cavity === cavity);
                return used ? wires.get(used.wireIds[0]!)!.colour : null;
              }}
            />
          </>
        ) : (
          <p className="faint">
            {end.kind === 'connector'
              ? 'Its housing is still to be chosen: no face to show yet. Those that have its cavities can be picked below; others come from Shop.'
              : `${end.kind === 'ring' ? `Rings on a stud of M${end.studMm}` : end.kind === 'blade' ? `Blades on tongues of ${end.tongueMm} mm` : 'Bare tails'}: no face to show.`}
          </p>
        )}
        <EndFacts planned={planned} endId={endId} onRemove={onRemove} />
      </section>
      <section className={styles.table} aria-label="Cavities" tabIndex={0}>
        <FindingLines findings={findings} />
        <CavitiesTable planned={planned} endId={endId} />
        <Templates planned={planned} endId={endId} />
        {plugs.length > 0 && (
          <p className="faint">
            Plugs in {plugs.map(({ cavity }) => cavity).join(', ')}. Removal:{' '}
            {[...new Set(here.map(({ removalTool }) => removalTool).filter(Boolean))].join(', ') || 'no tool'}.
          </p>
        )}
        <p className="faint">Tired hands make bad crimps: breaks, and a second person’s check next day. The maker’s sheet comes first.</p>
      </section>
    </>
  );
}
