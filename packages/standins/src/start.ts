import { startDirectory } from './directory/directory';
import { startDns } from './dns/dns';
import { startFinder } from './finder/finder';
import { startFirms } from './firms/firms';
import { callLog, PLAIN } from './kit/call-log';
import { startModel } from './model/model';
import { startSmtp } from './smtp/smtp';
import { startTopics } from './topics/topics';
import { startWeb } from './web/web';
import { buildProfiles } from './world/profiles';
import { buildWorld } from './world/world';

/** Starts every stand-in on this machine, all from one seeded world. */
export async function startStandins(
  ports: {
    finder: number;
    dns: number;
    smtp: number;
    directory: number;
    web: number;
    firms: number;
    topics: number;
    model: number;
  },
  seed = 7,
): Promise<{ close: () => Promise<void> }> {
  const world = buildWorld(seed);
  const shared = { log: callLog(), scenario: { ...PLAIN } };
  const dns = await startDns(world, ports.dns, shared.log);
  const smtp = await startSmtp(world, ports.smtp, () => shared.scenario, shared.log);
  const finder = await startFinder(world, ports.finder, shared);
  const directory = await startDirectory(buildProfiles(world), ports.directory, shared);
  const web = await startWeb(world, ports.web, shared);
  const firms = await startFirms(world, ports.firms, shared);
  const topics = await startTopics(world, ports.topics, shared);
  const model = await startModel(ports.model, shared);
  return {
    close: async () => {
      dns.close();
      smtp.close();
      await finder.close();
      await directory.close();
      await web.close();
      await firms.close();
      await topics.close();
      await model.close();
    },
  };
}
