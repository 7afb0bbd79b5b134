-- Chance is drawn otherwise from here on. Responses that were begun before keep what they were asked: see core/routing/chance.ts.
UPDATE `responses` SET `kept` = json_set(`kept`, '$.seed', -1 - json_extract(`kept`, '$.seed'));
