import { drawn, webHarness } from '../../testing/web-harness';
import { ShapesList } from './shapes-list';

describe('known shapes', () => {
  it('lists them, changes what a column is, and forgets one', async () => {
    const { http } = webHarness();
    const { stable, text, button, pick } = await drawn(ShapesList);
    const shape = { shape: '["nom"]', columns: [{ name: 'Nom', target: 'own' as const }], at: 1 };
    http.expectOne('/api/shapes').flush([shape]);
    await stable();
    button('Nom').click();
    await stable();
    await pick('What Nom is', 'Last name');
    const set = http.expectOne('/api/shapes');
    expect(set.request.body).toEqual({ columns: [{ name: 'Nom', target: 'lastName' }] });
    set.flush([{ ...shape, columns: [{ name: 'Nom', target: 'lastName' }] }]);
    await stable();
    button('Forget Nom').click();
    http.expectOne('/api/shapes/forget').flush([]);
    await stable();
    expect(text()).toContain('None yet');
  });
});
