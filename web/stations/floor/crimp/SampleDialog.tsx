'use client';

import { Input, Modal } from '@mantine/core';
import { useLocalStorage } from '@mantine/hooks';
import { useState } from 'react';
import {
  judgeSamples,
  LOOK_WORDS,
  SAMPLE_LOOKS,
  toCount,
  toDueWords,
  toToolWords,
  type CrimpAsking,
  type CrimpSample,
  type SampleLook,
  type SampleSet,
} from 'wattograph-core';
import { refusePhoto } from '../../../client/photoLine';
import { BlobPicture } from '../../../ui/BlobPicture';
import { CameraInput } from '../../../ui/fields/CameraInput';
import { askReason } from '../../../ui/fields/askReason';
import { readQuantity } from '../../../ui/fields/readQuantity';
import type { CrimpLine } from './useCrimps';
import styles from './Crimp.module.css';

/** A sample while it is typed in. bad null: nobody looked yet. */
interface Typed {
  bad: SampleLook[] | null;
  height: string;
  pulls: string[];
}

const SHORT: Record<SampleLook, string> = {
  brush: 'no brush',
  wings: 'insulation not held',
  strands: 'strands cut',
  bellmouth: 'no bellmouth',
};

/** The sample as it counts; null: something of it is not said yet. */
function readSample({ bad, height, pulls }: Typed, { leastN, heightMm }: CrimpLine['state']['series']): CrimpSample | null {
  if (bad === null) return null;
  const pulled = leastN.map((least, at) => (least === null ? null : readQuantity(pulls[at] ?? '', 'N')));
  const isGood = (value: number | null) => value !== null && Number.isFinite(value) && value >= 0;
  if (pulled.some((value, at) => leastN[at] !== null && !isGood(value))) return null;
  const high = heightMm === null ? null : readQuantity(height, 'mm');
  if (heightMm !== null && !isGood(high)) return null;
  return { bad, heightMm: high, pullsN: pulled };
}

const toSentence = (words: string): string => `${words.slice(0, 1).toUpperCase()}${words.slice(1)}`;

/** The tool's date and gauge, then samples one by one: looked at, measured, pulled apart (craft D3). */
export function SampleDialog({
  line,
  sampling,
  instruments,
  onGauge,
  onKeep,
  onWithout,
  onClose,
}: {
  line: CrimpLine;
  sampling: CrimpAsking['standard'];
  instruments: readonly string[];
  onGauge: (words: string) => void;
  /** photo: of the samples; null: none was taken */
  onKeep: (set: SampleSet, photo: Blob | null) => void;
  onWithout: () => void;
  onClose: () => void;
}) {
  const { state, gate } = line;
  const { series, due, dueCount } = state;
  const [typed, setTyped] = useState<Typed[]>(() =>
    Array.from({ length: dueCount }, () => ({ bad: null, height: '', pulls: series.leastN.map(() => '') })),
  );
  const [kept, setKept] = useLocalStorage<{ pull: string; height: string }>({
    key: 'wattograph.sampling',
    defaultValue: { pull: '', height: '' },
    getInitialValueInEffect: false,
  });
  const [photo, setPhoto] = useState<File | null>(null);
  const refused = photo && refusePhoto(photo);
  const isBarred = gate.stops.length > 0 || gate.asksGauge;
  const samples = typed.map((one) => readSample(one, series));
  const known = samples.filter((one) => one !== null);
  const hasInstruments = kept.pull.trim() !== '' && (series.heightMm === null || kept.height.trim() !== '');
  const isWhole = due !== null && known.length === dueCount && hasInstruments && !isBarred;
  const verdict = judgeSamples({ samples: known }, series, sampling);
  const put = (at: number, part: Partial<Typed>) => setTyped(typed.map((one, place) => (place === at ? { ...one, ...part } : one)));
  return (
    <Modal
      opened
      onClose={onClose}
      size={900}
      classNames={{ title: styles.dialogTitle }}
      title={due === null ? toToolWords(series) : toSentence(toDueWords(state))}
    >
      <div className={styles.dialog}>
        <p>
          <b>{series.contactName}</b> on {series.wires}, {toToolWords(series)}
          {gate.tool.setting && `. Its setting: ${gate.tool.setting}`}
        </p>
        <ToolFacts {...{ gate, onGauge }} />
        {due !== null && !isBarred && (
          <>
            <datalist id="sample-instruments">
              {instruments.map((name) => (
                <option key={name} value={name} />
              ))}
            </datalist>
            <div className={styles.with}>
              <label>
                pulled with{' '}
                <Input
                  variant="unstyled"
                  list="sample-instruments"
                  maxLength={80}
                  value={kept.pull}
                  onChange={(event) => setKept({ ...kept, pull: event.target.value })}
                />
              </label>
              {series.heightMm !== null && (
                <label>
                  height with{' '}
                  <Input
                    variant="unstyled"
                    list="sample-instruments"
                    maxLength={80}
                    value={kept.height}
                    onChange={(event) => setKept({ ...kept, height: event.target.value })}
                  />
                </label>
              )}
            </div>
            <ol className={styles.samples}>
              {typed.map((one, at) => (
                <li key={at} aria-label={`Sample ${at + 1}`}>
                  <div>
                    <Looks bad={one.bad} onChange={(bad) => put(at, { bad })} />
                    <span className={styles.figures}>
                      {series.heightMm !== null && (
                        <label>
                          height, {series.heightMm} ± {sampling.crimpHeightMm} mm
                          <Input
                            variant="unstyled"
                            inputMode="decimal"
                            value={one.height}
                            onChange={(event) => put(at, { height: event.target.value })}
                          />
                        </label>
                      )}
                      {series.leastN.map(
                        (least, wire) =>
                          least !== null && (
                            <label key={wire}>
                              pull{series.leastN.length > 1 && ` wire ${wire + 1}`}, at least {least} N
                              <Input
                                variant="unstyled"
                                inputMode="decimal"
                                value={one.pulls[wire]!}
                                onChange={(event) =>
                                  put(at, { pulls: one.pulls.map((text, place) => (place === wire ? event.target.value : text)) })
                                }
                              />
                            </label>
                          ),
                      )}
                    </span>
                  </div>
                </li>
              ))}
            </ol>
            <label className={styles.photo}>
              <span>{photo ? 'Another photo of them' : 'With a photo of them'}</span>
              <CameraInput onPicture={setPhoto} onNone={() => setPhoto(null)} />
            </label>
            {photo && !refused && <BlobPicture blob={photo} alt="samples" className={styles.preview!} />}
            {refused && (
              <p className={styles.bar} role="alert">
                {refused}
              </p>
            )}
            <ul className={styles.verdict} aria-label="What they say">
              {verdict.lines.map(({ sample, grade, words }, at) => (
                <li key={at} className={grade === 'fail' ? styles.bar : undefined}>
                  {typed.length > 1 && `Sample ${sample}: `}
                  {words}
                </li>
              ))}
              {!isWhole && <li>{saysMissing(samples, hasInstruments)}</li>}
            </ul>
          </>
        )}
        <div className={styles.end}>
          <button onClick={onWithout}>Crimp without, with a reason</button>
          {due !== null && !isBarred && (
            <button
              className={styles.main}
              disabled={!isWhole || Boolean(refused)}
              onClick={() =>
                onKeep(
                  {
                    reason: due,
                    samples: known,
                    pullTester: kept.pull.trim(),
                    heightGauge: series.heightMm === null ? null : kept.height.trim(),
                  },
                  photo,
                )
              }
            >
              {verdict.grade === 'fail' ? 'Keep: it fails' : verdict.grade === 'warn' ? 'Keep: passes, with a warning' : 'Keep'}
            </button>
          )}
        </div>
      </div>
    </Modal>
  );
}

const saysMissing = (samples: readonly (CrimpSample | null)[], hasInstruments: boolean): string => {
  const open = samples.filter((one) => one === null).length;
  return open > 0
    ? `${toCount(open, 'sample is', 'samples are')} not looked at and pulled yet`
    : hasInstruments
      ? ''
      : 'with what was it measured?';
};

/** Its calibration and service, and its gauge before a session. */
function ToolFacts({ gate: { tool, stops, asksGauge }, onGauge }: { gate: CrimpLine['gate']; onGauge: (words: string) => void }) {
  return (
    <div className={styles.tool}>
      <p>
        {tool.name}: {tool.dueDay === null ? 'no calibration day' : `calibrated until ${tool.dueDay}`}, {tool.crimps} of{' '}
        {tool.serviceCrimps} crimps since its service
      </p>
      {stops.map((words) => (
        <p key={words} className={styles.bar} role="alert">
          Not used: {words}
        </p>
      ))}
      {(asksGauge || stops.some((words) => words.startsWith('its gauge'))) && (
        <div className={styles.gauge}>
          <span>Go and no-go gauge before the first contact of this session:</span>
          <button className={styles.main} onClick={() => onGauge('')}>
            Go goes in, no-go does not
          </button>
          <button onClick={() => askReason('What does its gauge say?', onGauge, 'the tool is not used until its gauge passes')}>
            It does not pass
          </button>
        </div>
      )}
    </div>
  );
}

/** All looks right, or what does not. */
function Looks({ bad, onChange }: { bad: SampleLook[] | null; onChange: (bad: SampleLook[] | null) => void }) {
  const [isAsked, setAsked] = useState(false);
  return (
    <span className={styles.looks}>
      <button
        aria-pressed={bad !== null && bad.length === 0}
        title={SAMPLE_LOOKS.map((one) => LOOK_WORDS[one]).join('; ')}
        onClick={() => {
          setAsked(false);
          onChange([]);
        }}
      >
        Looks right
      </button>
      <button
        aria-expanded={isAsked}
        onClick={() => {
          setAsked(true);
          onChange(null);
        }}
      >
        Not right …
      </button>
      {isAsked && (
        <span className={styles.chips}>
          {SAMPLE_LOOKS.map((look) => {
            const isBad = bad?.includes(look) ?? false;
            const next = isBad ? bad!.filter((one) => one !== look) : [...(bad ?? []), look];
            return (
              <button
                key={look}
                className={styles.bad}
                aria-pressed={isBad}
                title={`must be: ${LOOK_WORDS[look]}`}
                onClick={() => onChange(next.length === 0 ? null : next)}
              >
                {SHORT[look]}
              </button>
            );
          })}
        </span>
      )}
    </span>
  );
}
