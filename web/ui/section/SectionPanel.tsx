'use client';

import { Table } from '@mantine/core';
import { useLocalStorage } from '@mantine/hooks';
import { memo, useMemo, useState } from 'react';
import { listLeaving, toCount, type PlannedBundle, type PlannedWire, type Section } from 'wattograph-core';
import type { PlannedLoom } from '../../client/jobContext';
import { standAt, useCursor, useCursorStore, useSection } from '../cursor';
import { Segmented } from '../fields/Segmented';
import { Why } from '../Why';
import { SectionKey } from './SectionKey';
import { LaidPicture } from './LaidPicture';
import { SectionPicture } from './SectionPicture';
import styles from './SectionPanel.module.css';
import { WhyCovering } from './WhyCovering';

/** The loom cut through at the cursor. */
export function SectionPanel({ planned }: { planned: PlannedLoom }) {
  const shown = useSection(planned.plan);
  if (!shown)
    return (
      <aside className={styles.panel}>
        <h2>Section</h2>
        <p className="faint">Move the cursor along the strip to cut the loom there.</p>
      </aside>
    );
  return (
    <aside className={styles.panel} aria-label="Section at the cursor">
      <div className={styles.title}>
        <h2>
          Section at <At planned={planned} /> mm
        </h2>
        <span className="mono faint">{toCount(shown.section.elements.flat().length, 'wire')}</span>
      </div>
      <Cut planned={planned} {...shown} />
    </aside>
  );
}

/** How hot the run gets in its worst mode, against what its insulation stands. */
function HeatRow({ planned, segmentId }: { planned: PlannedLoom; segmentId: string }) {
  const heat = planned.plan.heats.find((one) => one.segmentId === segmentId);
  if (!heat || heat.limitC === null)
    return (
      <tr>
        <td>Hottest</td>
        <td>
          <Why because="No zone is given for this run, so its ambient is not known. Give it one under Lengths.">ambient not known</Why>
        </td>
      </tr>
    );
  const { ambientC, surfaceC, middleC, wattsPerM, limitC, modeId, uncounted } = heat;
  return (
    <tr>
      <td>Hottest, in the middle</td>
      <td>
        <Why
          because={
            <>
              {modeId === null
                ? 'Nothing known flows here'
                : `In “${planned.job.modes[modeId]!.name}”, when it is hottest, each wire with what it carries then`}
              ; still air of {ambientC} °C
              {wattsPerM === null
                ? ''
                : `: ${wattsPerM.toFixed(2)} W/m, surface ${surfaceC!.toFixed(1)} °C, middle ${middleC!.toFixed(1)} °C`}
              .
              <br />
              Natural convection (Churchill and Chu) and radiation outside, k 0.2 through the covering, 0.16 W/m·K through the bundle;
              copper at the temperature found.
              {uncounted > 0 && (
                <>
                  <br />
                  {uncounted} {uncounted === 1 ? 'wire has' : 'wires have'} no known current and count as carrying none.
                </>
              )}
            </>
          }
        >
          {middleC === null ? 'runs away' : `${middleC.toFixed(0)} °C`} of {limitC}
        </Why>
      </td>
    </tr>
  );
}

function At({ planned }: { planned: PlannedLoom }) {
  const mm = useCursor((cursor) => {
    const at = standAt(planned.plan, cursor);
    return at ? Math.round(planned.plan.tree.segments[at.segmentId]!.startMm + at.offsetMm) : 0;
  });
  return (
    <span className="mono" data-testid="section-at">
      {mm}
    </span>
  );
}

const METHOD_WORDS: Record<Section['method'], string> = {
  formula: 'laid straight and tied: exact enclosing circle',
  search: 'laid straight and tied: best found by circle packing',
  'lay-up': 'twisted in layers: over the outermost layer',
};

/** Up to so many wires figures and key have room together. */
const FEW = 10;

const Cut = memo(function Cut({ planned, bundle, section }: { planned: PlannedLoom; bundle: PlannedBundle; section: Section }) {
  const [over, setOver] = useState<string | null>(null);
  const [tab, setTab] = useLocalStorage<'figures' | 'wires'>({ key: 'wattograph.section', defaultValue: 'figures' });
  const cursor = useCursorStore();
  const { plan, loom } = planned;
  const wires = useMemo(() => new Map(plan.wires.map((wire) => [wire.id, wire])), [plan]);
  const ids = useMemo(() => section.elements.flat(), [section]);
  const groups = useMemo(() => listLeaving(loom, plan, bundle.segmentId, section), [loom, plan, bundle, section]);
  const serial = useMemo(() => new Map(ids.map((id, index) => [id, index + 1])), [ids]);
  const isFew = ids.length <= FEW;
  const layup = plan.layups.find(({ segmentIds }) => segmentIds.includes(bundle.segmentId));
  const key = (
    <SectionKey
      groups={groups}
      serial={serial}
      wires={wires}
      over={over}
      onOver={setOver}
      onChoose={(id) => cursor.light(cursor.getLit() === id ? null : id)}
    />
  );
  return (
    <>
      {layup && section.method === 'lay-up' ? (
        <LaidPicture planned={planned} layup={layup} bundle={bundle} section={section} wires={wires} over={over} onOver={setOver} />
      ) : (
        <SectionPicture planned={planned} bundle={bundle} section={section} wires={wires} over={over} onOver={setOver} />
      )}
      {!isFew && (
        <div className={styles.tabs}>
          <Segmented
            label="Below the picture"
            value={tab}
            onChange={setTab}
            options={[
              { value: 'figures', words: 'Figures' },
              { value: 'wires', words: ids.length === 1 ? 'The wire' : `All ${ids.length} wires` },
            ]}
          />
        </div>
      )}
      {(isFew || tab === 'figures') && <Figures planned={planned} bundle={bundle} section={section} wires={wires} />}
      {(isFew || tab === 'wires') && key}
    </>
  );
});

function Figures({
  planned,
  bundle,
  section,
  wires,
}: {
  planned: PlannedLoom;
  bundle: PlannedBundle;
  section: Section;
  wires: ReadonlyMap<string, PlannedWire>;
}) {
  const { plan, loom } = planned;
  const covering = plan.coverings.find(({ segmentId }) => segmentId === bundle.segmentId)!;
  const wall = Math.max(0, (covering.odOutsideMm - bundle.odMm) / 2);
  const far = plan.tree.segments[bundle.segmentId]!.farNodeId;
  const onward = plan.tree.nodes[far]!.childSegmentIds[0];
  const leaving = section.elements.flat().filter((id) => !wires.get(id)!.pieces.some(({ segmentId }) => segmentId === onward)).length;
  const { kind } = loom.nodes[far]!;
  return (
    <Table unstyled className={styles.figures}>
      <tbody>
        <tr>
          <td>Over the wires</td>
          <td>
            <Why
              because={
                <>
                  <b>{section.odMm.toFixed(2)} mm</b>, {METHOD_WORDS[section.method]} of {section.elements.length} elements.
                  <br />
                  No bundle of these can be less than √(Σd²)/√0.9069 = {section.boundMm.toFixed(2)} mm; this one is{' '}
                  {(section.odMm / section.boundMm).toFixed(2)} × that.
                </>
              }
            >
              {section.odMm.toFixed(1)} mm
            </Why>
          </td>
        </tr>
        <tr>
          <td>Covering</td>
          <td>
            <Why because={<WhyCovering planned={planned} bundle={bundle} />}>
              {covering.kind === 'none' ? 'none' : covering.problem === 'no-size' ? 'no size fits' : covering.itemName}
            </Why>
          </td>
        </tr>
        <tr>
          <td>Over it, inside bend</td>
          <td>
            <Why
              because={
                <>
                  {covering.kind.endsWith('shrink')
                    ? `The sleeve keeps the volume of its wall: ${bundle.odMm.toFixed(2)} → ${covering.odOutsideMm.toFixed(2)} mm.`
                    : `${bundle.odMm.toFixed(2)} mm and ${wall.toFixed(2)} mm of it on either side: ${covering.odOutsideMm.toFixed(2)} mm.`}
                  <br />
                  Least inside bend radius: {(covering.insideBendMm / (covering.odOutsideMm || 1)).toFixed(0)} ×{' '}
                  {covering.odOutsideMm.toFixed(1)} mm
                  {bundle.isStiff ? ', for a screen or a heavy conductor lies in it' : ''}.
                </>
              }
            >
              {covering.odOutsideMm.toFixed(1)} mm, ≥ {covering.insideBendMm.toFixed(0)}
            </Why>
          </td>
        </tr>
        <HeatRow planned={planned} segmentId={bundle.segmentId} />
        <tr>
          <td>Leaves next</td>
          <td>
            {kind === 'end' ? 'all' : leaving === 0 ? 'nothing' : leaving} at {loom.nodes[far]!.name}
          </td>
        </tr>
        <tr>
          <td>Wire mass</td>
          <td>{bundle.massGPerM.toFixed(0)} g/m</td>
        </tr>
      </tbody>
    </Table>
  );
}
