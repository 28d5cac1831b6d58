type Id = 'imke' | 'jun' | 'saoirse' | 'tobin' | 'wil';
interface Storage {
  cookies: {
    name: string;
    value: string;
    domain: string;
    path: string;
    expires: number;
    httpOnly: boolean;
    secure: boolean;
    sameSite: 'Lax';
  }[];
  origins: [];
}
export const TEST_SECRET: string;
export const TEST_ENVIRONMENT: Record<string, string>;
export function addTestPeople(databaseUrl: string): Promise<void>;
export function cookieOf(id: Id): string;
export function storageOf(id: Id): Storage;
