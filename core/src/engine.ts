/** Version of the computation, as in package.json: a release says which one planned it. Raised when a plan of the same job may come out otherwise. */
export const ENGINE = '0.7.0';
