import { drawStripTemplate, findStandard } from 'wattograph-core';
import type { PlannedLoom } from '../../client/jobContext';
import { useShop } from '../../client/shopContext';
import { StackPicture } from '../../ui/StackPicture';
import styles from './Ends.module.css';

/** How screened cables are opened at an end, drawn to scale, and in which order rings lie on its stud. */
export function Templates({ planned: { plan, job }, endId }: { planned: PlannedLoom; endId: string }) {
  const { screenLeastMegohm } = findStandard(job, useShop());
  const screens = plan.screens.filter((one) => one.endId === endId);
  const stud = plan.studs.find((one) => one.endId === endId);
  const wires = new Map(plan.wires.map((wire) => [wire.id, wire]));
  const numbers = (ids: readonly string[]) => ids.map((id) => wires.get(id)!.number).join(' + ');
  return (
    <>
      {screens.map((screen) => (
        <figure key={screen.groupId} className={styles.template} aria-label={`Strip template of ${screen.cableName}`}>
          <figcaption>
            <b>{screen.cableName}</b>, {numbers(screen.wireIds)}: jacket back {screen.backMm} mm, screen{' '}
            {screen.drainId === null ? 'cut' : `gathered into ${numbers([screen.drainId])}`} {screen.screenMm} mm over its edge, insulation{' '}
            {screen.insulationMm} mm, bare {screen.stripMm} mm. Over the edge {screen.sleeveName}, {screen.sleeveMm} mm; {screenLeastMegohm}{' '}
            MΩ and more from core to screen before anything is seated.
          </figcaption>
          <StackPicture
            drawing={drawStripTemplate(
              screen,
              screen.wireIds.map((id) => wires.get(id)!.colour),
            )}
            words={`${screen.cableName} opened`}
          />
        </figure>
      ))}
      {stud && (
        <div className={styles.template}>
          <b>On the stud, from its foot outwards</b>
          <ol aria-label="Rings on the stud">
            {stud.rings.map(({ wireIds, contactName }) => (
              <li key={wireIds.join(' ')}>
                <span className="mono">{numbers(wireIds)}</span> {contactName}
                {stud.band && `, ${stud.band} band`}
              </li>
            ))}
          </ol>
          <p>
            Nut M{stud.studMm}: {stud.torqueNm === null ? 'the maker’s torque' : `${stud.torqueNm} Nm, the maker’s figure first`}.{' '}
            {stud.stackMm === null
              ? 'The shop does not say how thick these rings are.'
              : `With washer and nut ${stud.stackMm.toFixed(1)} mm high, ${stud.threadMm === null ? 'thread not measured' : `on ${stud.threadMm} mm of thread`}.`}
          </p>
        </div>
      )}
    </>
  );
}
