/** The museum's content, from the tables in demo/content. */
import archiveText from './content/archive.txt?raw';
import campaignsText from './content/campaigns.txt?raw';
import eventsText from './content/events.txt?raw';
import frenchText from './content/french.txt?raw';
import learnText from './content/learn.txt?raw';
import pressText from './content/press.txt?raw';
import shopText from './content/shop.txt?raw';
import storiesText from './content/stories.txt?raw';
import vehiclesText from './content/vehicles.txt?raw';
import visitText from './content/visit.txt?raw';
import { readTable } from './table';

const article = ['slug', 'title', 'lead'] as const;

export const vehicles = readTable(vehiclesText, ['kind', 'slug', 'name', 'year', 'depot', 'line', 'sentence']);
export const stories = readTable(storiesText, article);
export const learn = readTable(learnText, article);
export const visit = readTable(visitText, article);
export const events = readTable(eventsText, article);
export const campaigns = readTable(campaignsText, article);
export const press = readTable(pressText, ['year', 'slug', 'title', 'lead']);
export const shop = readTable(shopText, ['group', 'slug', 'name', 'price', 'colour', 'copy']);
export const french = readTable(frenchText, ['slug', 'title', 'lead', 'english']);
export const archive = readTable(archiveText, ['slug', 'title']);
