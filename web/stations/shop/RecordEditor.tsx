'use client';

import { Button, Checkbox, Fieldset, Group, Select, TextInput } from '@mantine/core';
import isEqual from 'fast-deep-equal';
import { useState } from 'react';
import {
  describeRecord,
  findBuying,
  isBoughtTable,
  isOffered,
  listRecordFields,
  listTemplateProblems,
  putRecord,
  RECORD_SCHEMAS,
  RETIRABLE_TABLES,
  toBuyingKey,
  type BoughtTable,
  type Buying,
  type ConnectorFamily,
  type DeviceTemplate,
  type RecordField,
  type Shop,
  type ShopRecord,
  type ShopTable,
} from 'wattograph-core';
import { isUnit, type Unit } from '../../ui/fields/readQuantity';
import { useQuantity } from '../../ui/fields/useQuantity';
import { Link } from '../../ui/Link';
import { HazardField } from '../../ui/template/HazardField';
import { fromRows, TemplateEditor, toRows, type EditedRows } from '../../ui/template/TemplateEditor';
import { FamilyFace } from './FamilyFace';
import { RecordPreview } from './RecordPreview';
import styles from './Shop.module.css';

/** A job that uses a record. */
export interface User {
  id: string;
  name: string;
}

/** Fields that have an editor of their own; a wire lies in the table of its kind. */
const ELSEWHERE: Partial<Record<ShopTable, readonly string[]>> = {
  wires: ['table'],
  families: ['cavityNames', 'cavitySize', 'otherSizes', 'mateId'],
  devices: ['familyId', 'hazard'],
};

/** One record of a shop: every figure and word of it, with what it works with in this shop. */
export function RecordEditor({
  shop,
  table,
  record,
  users,
  onChange,
  onShop,
  onCopy,
  onCopySize,
  onRemove,
}: {
  shop: Shop;
  table: ShopTable;
  record: ShopRecord;
  users: readonly User[];
  onChange: (value: unknown) => void;
  /** what is beside the record: how it is bought */
  onShop: (shop: Shop) => void;
  /** another from it; of a wire: another kind with all its sizes */
  onCopy: (() => void) | null;
  /** of a wire: another size of its kind */
  onCopySize: (() => void) | null;
  onRemove: () => void;
}) {
  const value = record.value as Record<string, unknown>;
  const fits = describeRecord(shop, table, record);
  return (
    <div>
      <h2>{record.name}</h2>
      <p className={styles.fits}>
        <code>{record.id}</code>
        {fits && ` · ${fits}`}
      </p>
      <Group gap="xs" mb="sm">
        {onCopy && (
          <Button variant="default" size="xs" onClick={onCopy}>
            {onCopySize ? 'Make another kind from it' : 'Make another from it'}
          </Button>
        )}
        {onCopySize && (
          <Button variant="default" size="xs" onClick={onCopySize}>
            Another size
          </Button>
        )}
        {isBoughtTable(table) && RETIRABLE_TABLES.includes(table) && (
          <Button
            variant="default"
            size="xs"
            onClick={() => onShop(putBuying(shop, table, record.id, { retired: isOffered(shop, table, record.id) }))}
          >
            {isOffered(shop, table, record.id) ? 'Retire it' : 'Offer it again'}
          </Button>
        )}
        <Button variant="default" size="xs" disabled={users.length > 0} onClick={onRemove}>
          Take it out
        </Button>
      </Group>
      {(isBoughtTable(table) || table === 'standards') && (
        <Users users={users} canRetire={isBoughtTable(table) && RETIRABLE_TABLES.includes(table)} />
      )}
      <RecordPreview shop={shop} table={table} value={value} />
      {table === 'families' && <FamilyFace shop={shop} family={value as ConnectorFamily} onChange={onChange} />}
      {table === 'families' && (
        <Select
          label="mates with"
          searchable
          clearable
          mb="sm"
          placeholder="another of its own"
          data={Object.entries(shop.families).flatMap(([id, { name }]) => (id === record.id ? [] : [{ value: id, label: name }]))}
          value={(value as ConnectorFamily).mateId}
          onChange={(mateId) => onChange({ ...value, mateId })}
        />
      )}
      {table === 'devices' && (
        <Select
          label="mates with"
          searchable
          clearable
          mb="sm"
          placeholder="studs or tails"
          data={Object.entries(shop.families).map(([familyId, { name }]) => ({ value: familyId, label: name }))}
          value={(value as DeviceTemplate).familyId}
          onChange={(familyId) => onChange({ ...value, familyId })}
        />
      )}
      {table === 'devices' && (
        <HazardField mb="sm" value={(value as DeviceTemplate).hazard} onChange={(hazard) => onChange({ ...value, hazard })} />
      )}
      <Fields
        fields={listRecordFields(RECORD_SCHEMAS[table], value)
          .filter(({ key }) => !ELSEWHERE[table]?.includes(key))
          .map((field) => nameKinds(field, shop))}
        value={value}
        onChange={(key, next) => onChange({ ...value, [key]: next })}
      />
      {table === 'devices' && <DevicePins shop={shop} id={record.id} template={value as DeviceTemplate} onChange={onChange} />}
      {isBoughtTable(table) && <Bought shop={shop} table={table} id={record.id} onShop={onShop} />}
    </div>
  );
}

/** What is asked of each kind of wire, with the kinds as they are spoken. */
const nameKinds = (field: RecordField, { wires }: Shop): RecordField => ({
  ...field,
  fields: field.fields.map((one) => ({ ...one, words: wires[one.key]?.[0]?.insulation ?? one.words })),
});

/** The pins of a kind of device. What is typed is kept as the field is left; rows that cannot be so are said, and kept once they can. */
function DevicePins({
  shop,
  id,
  template,
  onChange,
}: {
  shop: Shop;
  id: string;
  template: DeviceTemplate;
  onChange: (value: unknown) => void;
}) {
  const [rows, setRows] = useState(() => toRows(template));
  const keep = (next: EditedRows) => {
    if (!isEqual(next, toRows(template)) && listTemplateProblems(next).length === 0) onChange({ ...template, ...fromRows(next) });
  };
  return (
    <div onBlur={() => keep(rows)}>
      <h3 className={styles.part}>Pins</h3>
      <TemplateEditor
        name={id}
        rows={rows}
        others={Object.fromEntries(Object.entries(shop.devices).filter(([other]) => other !== id))}
        onChange={(next) => {
          setRows(next);
          if (!isTyping()) keep(next);
        }}
      />
    </div>
  );
}

const isTyping = () => document.activeElement instanceof HTMLInputElement && document.activeElement.type === 'text';

const UNKNOWN: Buying = { retired: false, price: null, packOf: null, orderAs: '' };

function putBuying(shop: Shop, table: BoughtTable, id: string, part: Partial<Buying>): Shop {
  return putRecord(shop, 'buying', toBuyingKey(table, id), { ...(findBuying(shop, table, id) ?? UNKNOWN), ...part });
}

/** Jobs that the record is in, named in them or chosen by their plan. */
function Users({ users, canRetire }: { users: readonly User[]; canRetire: boolean }) {
  if (users.length === 0) return <p className="faint">In no job as it is planned now.</p>;
  return (
    <p className="faint">
      In{' '}
      {users.map(({ id, name }, at) => (
        <span key={id}>
          {at > 0 && ', '}
          <Link href={`/jobs/${id}/bundle`} className={styles.user}>
            {name}
          </Link>
        </span>
      ))}
      {canRetire ? ': it can be retired, not taken out.' : ': it cannot be taken out.'}
    </p>
  );
}

function Bought({ shop, table, id, onShop }: { shop: Shop; table: BoughtTable; id: string; onShop: (shop: Shop) => void }) {
  const value: Record<string, unknown> = findBuying(shop, table, id) ?? UNKNOWN;
  return (
    <Fieldset legend={shop.currency === null ? 'Buying' : `Buying, ${shop.currency}`} className={styles.group} mt="md">
      <Fields
        fields={listRecordFields(RECORD_SCHEMAS.buying, value).filter(({ key }) => key !== 'retired')}
        value={value}
        onChange={(key, next) => onShop(putBuying(shop, table, id, { [key]: next }))}
      />
    </Fieldset>
  );
}

function Fields({
  fields,
  value,
  onChange,
}: {
  fields: readonly RecordField[];
  value: Record<string, unknown>;
  onChange: (key: string, next: unknown) => void;
}) {
  return (
    <div className={styles.fields}>
      {fields.map((field) =>
        field.kind === 'group' ? (
          <Fieldset key={field.key} legend={field.words} className={styles.group}>
            {field.hint && <p className="faint">{field.hint}</p>}
            <Fields
              fields={field.fields}
              value={value[field.key] as Record<string, unknown>}
              onChange={(key, next) => onChange(field.key, { ...(value[field.key] as Record<string, unknown>), [key]: next })}
            />
          </Fieldset>
        ) : (
          <Field key={field.key} field={field} value={value[field.key]} onChange={(next) => onChange(field.key, next)} />
        ),
      )}
    </div>
  );
}

/** A field that keeps what is typed until it is left or Enter is pressed: an edit is one step of undo. */
function Field({ field, value, onChange }: { field: RecordField; value: unknown; onChange: (next: unknown) => void }) {
  const { words: label, hint: description, kind, isOptional } = field;
  switch (kind) {
    case 'number':
      return <Figure field={field} value={value as number | null} onChange={onChange} />;
    case 'yes-no':
      return (
        <Checkbox
          label={label}
          description={description}
          checked={value === true}
          onChange={(event) => onChange(event.currentTarget.checked)}
        />
      );
    case 'choice':
      return (
        <Select
          label={label}
          description={description}
          data={field.choices}
          value={value as string | null}
          allowDeselect={isOptional}
          placeholder={isOptional ? 'not stated' : undefined}
          onChange={onChange}
        />
      );
    default:
      return <Typed field={field} value={value} onChange={onChange} />;
  }
}

function Figure({ field, value, onChange }: { field: RecordField; value: number | null; onChange: (next: unknown) => void }) {
  const { expected, input } = useQuantity({
    value,
    unit: toUnit(field),
    // what a record allows is said by its check, beside the record
    least: -Infinity,
    most: Infinity,
    canBeEmpty: field.isOptional,
    onChange,
  });
  return (
    <TextInput
      label={field.words}
      description={field.hint}
      placeholder={field.isOptional ? 'not stated' : undefined}
      error={expected === null ? undefined : `expected ${expected}`}
      {...input}
    />
  );
}

/** The unit that a field names: "max area, mm²". */
function toUnit({ words }: RecordField): Unit | null {
  const last = words.split(', ').at(-1);
  return isUnit(last) ? last : null;
}

function Typed({ field, value, onChange }: { field: RecordField; value: unknown; onChange: (next: unknown) => void }) {
  const isList = field.kind === 'list';
  const toText = () => (isList ? (value as unknown[]).join(', ') : ((value as string | null) ?? ''));
  const [typed, setTyped] = useState(toText);
  const keep = () => {
    if (typed === toText()) return;
    if (isList) onChange(toList(typed, field.isInteger));
    else onChange(typed === '' && field.isOptional ? null : typed);
  };
  return (
    <TextInput
      label={field.words}
      description={field.hint}
      value={typed}
      onChange={(event) => setTyped(event.currentTarget.value)}
      onBlur={keep}
      onKeyDown={(event) => event.key === 'Enter' && keep()}
    />
  );
}

function toList(text: string, isInteger: boolean): unknown[] {
  const words = text.split(/[,;]/).flatMap((one) => (one.trim() === '' ? [] : [one.trim()]));
  return isInteger ? words.map(Number) : words;
}
