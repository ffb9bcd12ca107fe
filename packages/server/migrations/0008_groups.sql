UPDATE `decisions`
SET `body` = json_remove(json_set(`body`, '$.by', 'title', '$.value', json_extract(`body`, '$.title')), '$.title')
WHERE json_extract(`body`, '$.kind') = 'group';
