-- Weights by kind of pair. What was learned before people who changed their job, colleagues and neighbours were told apart holds until
-- the job is sifted again; what is older still does not say what it was learned of.
UPDATE `jobs` SET `weights` = NULL WHERE json_type(`weights`, '$.same') IS NULL;--> statement-breakpoint
UPDATE `jobs` SET `weights` = json_object(
  'm', json_extract(`weights`, '$.m'),
  'u', json_extract(`weights`, '$.u'),
  'kinds', json_object(
    'stayed', json_object('share', `weights` ->> '$.prior', 'shown', json_extract(`weights`, '$.same')),
    'moved', json_object('share', 0, 'shown', json_extract(`weights`, '$.same')),
    'colleagues', json_object(
      'share', (1 - (`weights` ->> '$.prior')) * (`weights` ->> '$.closeShare'), 'shown', json_extract(`weights`, '$.close')),
    'neighbours', json_object('share', 0, 'shown', json_extract(`weights`, '$.close')),
    'townspeople', json_object('share', 0, 'shown', json_extract(`weights`, '$.close')),
    'strangers', json_object(
      'share', (1 - (`weights` ->> '$.prior')) * (1 - (`weights` ->> '$.closeShare')), 'shown', json_extract(`weights`, '$.strangers'))
  ),
  'kinship', coalesce(`weights` ->> '$.kinship', 1),
  'taught', json_extract(`weights`, '$.taught'),
  'compared', coalesce(`weights` ->> '$.compared', 0)
) WHERE `weights` IS NOT NULL;
