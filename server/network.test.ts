import { describe, expect, test } from '@jest/globals';
import { networkFrom } from './network';

describe('where the app listens', () => {
  test('this machine only, unless the shop says otherwise', () => {
    expect(networkFrom({})).toEqual({ listen: '127.0.0.1', hosts: [], proxies: [] });
    expect(networkFrom({ HOSTS: ' ', LISTEN: '' })).toMatchObject({ listen: '127.0.0.1', hosts: [] });
  });
  test('on the network, by the names it is given', () => {
    expect(networkFrom({ HOSTS: 'signs.lan, 192.168.1.20 ,[fd00::1]' })).toEqual({
      listen: '0.0.0.0',
      hosts: ['signs.lan', '192.168.1.20', '[fd00::1]'],
      proxies: [],
    });
    const behind = { HOSTS: 'signs.example', LISTEN: '127.0.0.1', TRUST_PROXY: '127.0.0.1' };
    expect(networkFrom(behind)).toEqual({ listen: '127.0.0.1', hosts: ['signs.example'], proxies: ['127.0.0.1'] }); // prettier-ignore
  });
  test('never on a network without a name, nor by one that could not be asked for', () => {
    expect(() => networkFrom({ LISTEN: '0.0.0.0' })).toThrow(/say in HOSTS/);
    for (const HOSTS of ['http://signs.lan', 'signs.lan:4270', 'signs lan', 'a@signs.lan', '*'])
      expect(() => networkFrom({ HOSTS })).toThrow(/no name or address/);
  });
});
