// Where core and service tests run. Node carries the store of every scope that was ever opened from promise to
// promise, also those of files that are through: their scopes are closed, or each file makes the next one slower.
import { AsyncLocalStorage } from 'node:async_hooks'
import { TestEnvironment } from 'jest-environment-node'

export default class Environment extends TestEnvironment {
  async teardown() {
    for (const key of Reflect.ownKeys(this.global)) {
      const value = Object.getOwnPropertyDescriptor(this.global, key)?.value
      if (value instanceof AsyncLocalStorage) value.disable()
    }
    await super.teardown()
  }
}
