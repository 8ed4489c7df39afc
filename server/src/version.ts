/** The version of the product; a test holds it against package.json. */
export const VERSION = '0.21.0';
