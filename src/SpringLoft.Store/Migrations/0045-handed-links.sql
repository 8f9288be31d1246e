-- A link that is handed in: its file is a page that any browser opens, and this is where it leads.
ALTER TABLE work_file ADD COLUMN url TEXT;
ALTER TABLE work_turn_file ADD COLUMN url TEXT;
