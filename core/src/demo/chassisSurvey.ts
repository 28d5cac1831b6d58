import type { SurveyLine } from './engineSurvey';

const toLines = (text: string): SurveyLine[] =>
  text
    .trim()
    .split('\n')
    .map((row) => {
      const [zero, leg, atMm, what, name, hole, ticks] = row.split('|').map((part) => part.trim());
      return {
        zero: zero!,
        leg: leg as SurveyLine['leg'],
        atMm: Number(atMm),
        what: what as SurveyLine['what'],
        name: name!,
        ...(hole ? { holeMm: Number(hole) } : {}),
        ...(ticks ? { ticks: ticks.split(' ') as NonNullable<SurveyLine['ticks']> } : {}),
      };
    });

/** The chassis loom of the Skerry 12 as taped: zero | leg | mm | what | name | hole mm | ticks. "firewall" is the datum. */
export const CHASSIS_SURVEY: readonly SurveyLine[] = toLines(`
firewall          | new |  470 | breakout | controller shelf
firewall          | on  |  630 | breakout | power shelf
firewall          | on  |  790 | breakout | seat back
firewall          | on  |  970 | pass     | tub bulkhead hole | 48
firewall          | on  | 1230 | breakout | cockpit
firewall          | on  | 1630 | breakout | dash hoop
firewall          | on  | 2040 | breakout | pedal box
firewall          | on  | 2390 | end      | logger
controller shelf  | new |  150 | end      | controller plug A
controller shelf  | new |  165 | end      | controller plug B
controller shelf  | new |  180 | end      | controller plug C
power shelf       | new |  120 | end      | module power plug
controller shelf  | new |  140 | end      | module signal plug
power shelf       | new |  110 | end      | module feed
power shelf       | new |  160 | end      | ground stud left
power shelf       | new |  170 | end      | ground stud right
power shelf       | new |  220 | end      | ground stud lower
seat back         | new |  210 | breakout | battery tray
seat back         | on  |  260 | end      | battery positive
battery tray      | new |   70 | end      | battery negative
battery tray      | new |   40 | end      | main fuse
seat back         | new |  340 | end      | kill switch
seat back         | new |  320 | end      | fuel pump
seat back         | new |  420 | breakout | radiator duct |  | wet
seat back         | on  |  560 | end      | radiator fan |  | wet
radiator duct     | new |  130 | end      | intercooler pump |  | wet
seat back         | new |  300 | breakout | rear bulkhead
seat back         | on  |  360 | pass     | gearbox hole | 32
seat back         | on  |  450 | end      | gearbox plug
rear bulkhead     | new |  310 | end      | rain light |  | wet
rear bulkhead     | new |  280 | end      | brake light |  | wet
rear bulkhead     | new |  420 | end      | wheel speed rear left |  | moving
rear bulkhead     | new |  430 | end      | wheel speed rear right |  | moving
rear bulkhead     | new |  240 | end      | damper rear left |  | moving
rear bulkhead     | new |  250 | end      | damper rear right |  | moving
seat back         | new |  380 | end      | starter motor
seat back         | new |  360 | end      | engine block stud
cockpit           | new |  190 | end      | keypad
cockpit           | new |  160 | end      | neutral button
dash hoop         | new |  200 | end      | display |  | moving
dash hoop         | new |  300 | end      | shift paddles |  | moving
dash hoop         | new |  140 | end      | shift lamp
dash hoop         | new |  170 | end      | steering angle
pedal box         | new |  140 | end      | pedal
pedal box         | new |  200 | end      | brake pressure front
pedal box         | new |  215 | end      | brake pressure rear
pedal box         | new |  180 | end      | brake switch
pedal box         | new |  640 | end      | wheel speed front left |  | moving
pedal box         | new |  650 | end      | wheel speed front right |  | moving
pedal box         | new |  420 | end      | damper front left |  | moving
pedal box         | new |  430 | end      | damper front right |  | moving
`);

/** The gearbox loom: short, hot, and pulled off with the gearbox. */
export const GEARBOX_SURVEY: readonly SurveyLine[] = toLines(`
firewall      | new |  90 | breakout | valve block
firewall      | on  | 210 | breakout | selector |  | hot
firewall      | on  | 340 | end      | gear speed
valve block   | new |  80 | end      | shift valve up
valve block   | new | 120 | end      | shift valve down
selector      | new |  70 | end      | gear barrel position
selector      | new | 110 | end      | gearbox oil temperature
selector      | new | 150 | end      | gearbox oil pressure
`);
