import type puppeteer from 'puppeteer-core'

/** What drives the browser, as the environment of browser tests has loaded it. */
export default (globalThis as unknown as { atelierPuppeteer: typeof puppeteer }).atelierPuppeteer
