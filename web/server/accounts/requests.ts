import { Type } from '@sinclair/typebox';
import { ROLES, SHORTEST_PASSWORD } from './rights';

const Name = Type.String({ minLength: 2, maxLength: 80, pattern: '^\\S.*\\S$' });
const Username = Type.String({ minLength: 3, maxLength: 30, pattern: '^[A-Za-z0-9._-]+$' });
const Password = Type.String({ minLength: SHORTEST_PASSWORD, maxLength: 128 });
const Pin = Type.String({ pattern: '^\\d{4,8}$' });
const Code = Type.String({ minLength: 8, maxLength: 40 });
const RoleSchema = Type.Union(ROLES.map((role) => Type.Literal(role)));
const orNull = <T extends Parameters<typeof Type.Union>[0][number]>(schema: T) => Type.Union([schema, Type.Null()]);
const closed = { additionalProperties: false };

export const SignInRequest = Type.Object(
  { username: Type.String({ minLength: 1, maxLength: 80 }), password: Type.String({ minLength: 1, maxLength: 128 }) },
  closed,
);
export const PinRequest = Type.Object({ personId: Type.String({ minLength: 1, maxLength: 80 }), pin: Pin }, closed);
export const SetUpRequest = Type.Object({ code: Code, name: Name, username: Username, password: Password, pin: Pin }, closed);
export const InviteRequest = Type.Object(
  {
    ...{ name: Name, role: RoleSchema, personId: orNull(Type.String({ maxLength: 80 })) },
    jobId: Type.Optional(orNull(Type.String({ format: 'uuid' }))),
  },
  closed,
);
export const AcceptRequest = Type.Object({ code: Code, username: orNull(Username), password: orNull(Password), pin: orNull(Pin) }, closed);
export const ChangePersonRequest = Type.Object(
  { role: Type.Optional(RoleSchema), hasLeft: Type.Optional(Type.Literal(true)), endSessions: Type.Optional(Type.Literal(true)) },
  closed,
);
export const DeviceRequest = Type.Object({ name: Name }, closed);
