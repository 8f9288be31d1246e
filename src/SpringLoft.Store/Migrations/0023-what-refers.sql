-- When a row is deleted, whatever may refer to it is looked for: each of these without reading the whole table. Rows of
-- years, courses, plans and runs are never deleted.
CREATE INDEX class_term ON class(term_id) WHERE term_id IS NOT NULL;
CREATE INDEX folder_parent ON folder(parent_id) WHERE parent_id IS NOT NULL;
CREATE INDEX folder_group ON folder(group_id) WHERE group_id IS NOT NULL;
CREATE INDEX assignment_rolled_from ON assignment(rolled_from) WHERE rolled_from IS NOT NULL;
CREATE INDEX assignment_filing_folder ON assignment_filing(folder_id);
CREATE INDEX plan_put_class ON plan_put(class_id);
CREATE INDEX delivery_on_hold_class ON delivery_on_hold(class_id);
CREATE INDEX combined_section_class ON combined_section(class_id);
CREATE INDEX resource_sha256 ON resource(sha256) WHERE sha256 IS NOT NULL;
CREATE INDEX delivery_source ON delivery(source_sha256);
CREATE INDEX delivery_changes ON delivery(changes_sha256) WHERE changes_sha256 IS NOT NULL;
CREATE INDEX delivery_applied_undo ON delivery_applied(undo_sha256);
-- Asked of all of a person's when two accounts are joined, and of what a student made.
CREATE INDEX folder_student ON folder(student_id) WHERE student_id IS NOT NULL;
CREATE INDEX item_added_by ON item(added_by);
CREATE INDEX work_file_added_by ON work_file(added_by);
-- Somebody whom a delivery brought goes with it if nothing is theirs: asked of everything that knows people.
CREATE INDEX person_joined_into ON person(joined_into) WHERE joined_into IS NOT NULL;
CREATE INDEX audit_person ON audit(person_id) WHERE person_id IS NOT NULL;
CREATE INDEX notice_author ON notice(author_id);
CREATE INDEX assignment_given_person ON assignment_given(person_id);
CREATE INDEX work_comment_author ON work_comment(author_id);
CREATE INDEX run_started_by ON run(started_by);
CREATE INDEX package_student ON package(student_id) WHERE student_id IS NOT NULL;
CREATE INDEX delivery_received_by ON delivery(received_by) WHERE received_by IS NOT NULL;
CREATE INDEX delivery_hold_settled_as ON delivery_hold(settled_as) WHERE settled_as IS NOT NULL;
CREATE INDEX delivery_hold_decided_by ON delivery_hold(decided_by) WHERE decided_by IS NOT NULL;
CREATE INDEX delivery_applied_by ON delivery_applied(applied_by) WHERE applied_by IS NOT NULL;
CREATE INDEX person_join_by ON person_join(by);
CREATE INDEX person_join_gone ON person_join(gone);
CREATE INDEX person_join_kept ON person_join(kept);
CREATE INDEX person_apart_b ON person_apart(b);
CREATE INDEX join_wait_person ON join_wait(person_id);
CREATE INDEX invitation_accepted_by ON invitation(accepted_by) WHERE accepted_by IS NOT NULL;
CREATE INDEX invitation_sent_by ON invitation(sent_by);
CREATE INDEX sign_off_by ON sign_off(by_id);
CREATE INDEX roll_line_lead ON roll_line(lead_id) WHERE lead_id IS NOT NULL;
CREATE INDEX run_student_person ON run_student(person_id);
CREATE INDEX shelf_made_by ON shelf(made_by);
