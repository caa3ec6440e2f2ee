// Where browser tests run: what drives the browser is loaded once for each of Jest's workers. Every file has all
// other modules to itself, and loading these took longer than many a test.
import { TestEnvironment } from 'jest-environment-node'
import puppeteer from 'puppeteer-core'

export default class BrowserEnvironment extends TestEnvironment {
  async setup() {
    await super.setup()
    this.global.atelierPuppeteer = puppeteer
  }
}
