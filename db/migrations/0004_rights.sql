-- Up Migration

-- What a person may do on each board that they may see. A board that is not here for a person is not found by them.
create view board_right as
select b.id as board_id, p.id as person_id, coalesce(m.role, 'viewer') as role
from board b
cross join person p
left join membership m on m.team_id = b.team_id and m.person_id = p.id
left join board_person n on n.board_id = b.id and n.person_id = p.id
where m.role = 'lead'
	or (b.visible_to = 'team' and m.role is not null)
	or (b.visible_to = 'named' and n.person_id is not null)
	or b.visible_to = 'signed-in';
