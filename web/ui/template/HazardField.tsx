import { Select, type SelectProps } from '@mantine/core';
import { DEVICE_HAZARDS, type DeviceHazard } from 'wattograph-core';

const HAZARD_LABELS: Readonly<Record<DeviceHazard, string>> = {
  'injects-fuel': 'it injects fuel',
  'moves-fuel': 'it moves fuel',
  blades: 'its blades',
  pressure: 'what it holds under pressure',
};
const HAZARDS = DEVICE_HAZARDS.map((value) => ({ value, label: HAZARD_LABELS[value] }));

/** What can hurt as a kind of device is worked; none chosen: what its loads say. */
export function HazardField(props: Omit<SelectProps<DeviceHazard>, 'data' | 'label'>) {
  return <Select label="What can hurt as it is worked" w={240} clearable placeholder="what its loads say" {...props} data={HAZARDS} />;
}
