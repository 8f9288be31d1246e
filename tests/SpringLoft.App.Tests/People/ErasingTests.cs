using System.IO.Compression;
using System.Text;
using System.Text.Json;
using SpringLoft.App.Audit;
using SpringLoft.App.People;
using SpringLoft.App.Rosters;
using SpringLoft.Core.People;
using SpringLoft.Store.People;

namespace SpringLoft.App.Tests.People;

/// <summary>A person's data: all of it as one download, and taken out when they have left.</summary>
public class ErasingTests : SchoolTest
{
    private readonly Erasing erasing;

    public ErasingTests() => erasing = new(school.Premises);

    private async Task<AssignmentId> Worked()
    {
        school.OpenClass();
        var assignment = school.Assign();
        await school.HandIn(school.Umi, assignment, "a pot of Umi's");
        var work = school.Returns.See(school.Coordinator, school.Class).Students.Single(r => r.Student == school.Umi.Id).Cells.Single();
        school.Returns.Mark(school.Lead, school.Class, work.Id, 17, work.Version);
        school.Returns.Comment(school.Lead, school.Class, work.Id, "A fine rim.");
        work = school.Returns.See(school.Coordinator, school.Class).Students.Single(r => r.Student == school.Umi.Id).Cells.Single();
        school.Returns.Return(school.Lead, school.Class, work.Id, false, work.Version);
        return assignment;
    }

    private void Leaves() => new Leavers(school.Premises).Mark(school.Coordinator, [school.Umi.Id], offRosters: true);

    // Every text in the database, wherever it stands.
    private List<string> Everywhere(string text) => school.Read(c => Dapper.SqlMapper.Query<string>(c, "SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite%'").ToList().Where(t =>
        Dapper.SqlMapper.Query(c, $"SELECT * FROM \"{t}\"").Cast<IDictionary<string, object?>>().Any(r => r.Values.Any(v => v is string s && s.Contains(text, StringComparison.OrdinalIgnoreCase)))).ToList());

    [Fact]
    public async Task What_goes_and_what_stays_is_said_before_and_the_name_is_nowhere_after()
    {
        await Worked();
        Leaves();
        school.Premises.Db.Write(c => { Store.Closing.TakeHomeStore.NoteLeavers(c, school.Premises.Clock.Today); });
        Everywhere("Hallgr").ShouldNotBeEmpty("or this test finds nothing");
        var said = erasing.Preview(school.Umi.Id);
        said.ShouldSatisfyAllConditions(v => v.Bar.ShouldBe(ErasureBar.None), v => v.Counts.Works.ShouldBe(1), v => v.Counts.Classes.ShouldBe(1), v => v.Becomes.ShouldBe($"Former student {school.Umi.Id.Value}"));
        Refused(() => erasing.Erase(school.Coordinator, school.Umi.Id, "Somebody Else")).ShouldBe("delete-name");

        erasing.Erase(school.Coordinator, school.Umi.Id, "Umi Hallgrímsson");

        Everywhere("Hallgr").ShouldBeEmpty();
        Everywhere("umi@tiny").ShouldBeEmpty();
        var person = school.Read(c => PersonStore.Find(c, school.Umi.Id))!;
        (person.Name.Display, person.StudentNumber, person.Email, person.Grade).ShouldBe((said.Becomes, null, null, null));
        school.Read(c => PersonStore.SignIn(c, school.Umi.Id)).ShouldBeNull();
        // The school's record of the class is as it was, under the other name.
        school.Returns.See(school.Coordinator, school.Class).Students.Single(r => r.Student == school.Umi.Id).Cells.Single().Score.ShouldBe(17);
        new AuditTrail(school.Premises).Check().ShouldSatisfyAllConditions(a => a.Whole.ShouldBeTrue(), a => a.Erased.ShouldBeGreaterThan(0));
        Refused(() => erasing.Erase(school.Coordinator, school.Umi.Id, said.Becomes)).ShouldBe("erase-not-yet");
    }

    [Fact]
    public async Task Who_is_here_or_has_work_with_a_teacher_is_not_erased()
    {
        school.OpenClass();
        await school.HandIn(school.Umi, school.Assign());
        erasing.Preview(school.Umi.Id).Bar.ShouldBe(ErasureBar.StillHere);
        new Leavers(school.Premises).Mark(school.Coordinator, [school.Umi.Id], offRosters: true);

        erasing.Preview(school.Umi.Id).Bar.ShouldBe(ErasureBar.WorkHeld);
        Refused(() => erasing.Erase(school.Coordinator, school.Umi.Id, "Umi Hallgrímsson")).ShouldBe("erase-not-yet");
        Refused(() => erasing.Preview(new(9999))).ShouldBe("not-found");
    }

    [Fact]
    public async Task By_the_school_s_rule_people_are_erased_when_their_years_are_over_and_not_a_day_before()
    {
        await Worked();
        Leaves();
        school.Premises.Db.Write(c => { Store.Closing.TakeHomeStore.NoteLeavers(c, school.Premises.Clock.Today); });
        erasing.ByRule().ShouldBe(0, "no rule says so");
        school.SetRules(r => r with { PeopleYears = 2 });

        school.Clock.AdvanceDays(729);
        erasing.ByRule().ShouldBe(0);
        school.Clock.AdvanceDays(2);
        erasing.ByRule().ShouldBe(1);
        erasing.ByRule().ShouldBe(0);
        new AuditTrail(school.Premises).See(null, null, "erased person", null).Single().Detail.ShouldContain("by the school's rule");
    }

    [Fact]
    public async Task All_that_is_known_of_a_person_is_one_download_to_read_and_as_JSON_with_their_files()
    {
        await Worked();

        using var zip = new ZipArchive(new PersonData(school.Premises).Of(school.Umi.Id, CancellationToken.None).Content);

        string Read(string name)
        {
            using var reader = new StreamReader(zip.Entries.Single(e => e.FullName.EndsWith(name, StringComparison.Ordinal)).Open(), Encoding.UTF8);
            return reader.ReadToEnd();
        }
        var page = Read("index.html");
        foreach (var what in (string[])["Umi Hallgr&#237;msson", "1001", "A fine rim.", "Pinch pot", "17"]) page.ShouldContain(what);
        using var json = JsonDocument.Parse(Read("data.json"));
        json.RootElement.GetProperty("work")[0].GetProperty("score").GetString().ShouldBe("17");
        json.RootElement.GetProperty("saidAboutTheWork")[0].GetProperty("text").GetString().ShouldBe("A fine rim.");
        json.RootElement.GetProperty("person").GetProperty("student_number").GetString().ShouldBe("1001");
        Read("pot.txt").ShouldBe("a pot of Umi's");
        // Nothing that lets somebody in, and nothing of classmates.
        var all = page + json.RootElement.GetRawText();
        all.ShouldNotContain("Ravndal");
        all.ShouldNotContain(school.Read(c => PersonStore.SignIn(c, school.Umi.Id))!.PasswordHash);
    }

    [Fact]
    public void Columns_that_let_somebody_in_are_left_out_and_are_there_to_be_left_out()
    {
        var there = school.Read(c => Dapper.SqlMapper.Query<(string, string)>(c, "SELECT m.name, p.name FROM sqlite_master m, pragma_table_info(m.name) p WHERE m.type = 'table'").ToHashSet());

        PersonDataStore.Kept.ShouldAllBe(k => there.Contains(k));
        // Every sealed column of a table that refers to people is among them, and whatever is called a hash, a token or a secret.
        foreach (var (table, column) in there.Where(x => x.Item2 is "secret" or "token" or "token_sha" or "token_sha256" or "password_hash" or "first_phrase" or "digest" or "public_key" or "calendar_token"))
            PersonDataStore.Kept.ShouldContain((table, column));
    }

    [Fact]
    public async Task Another_account_that_was_theirs_and_what_deliveries_asked_about_them_are_erased_too()
    {
        school.OpenClass();
        // No hash has such letters: found, it is theirs.
        var twin = school.Add("umi2", SchoolRole.Student, "Umi", "Hallgrimson-Twin", "zq7777");
        new SchoolDirectory(school.Premises).Join(school.Coordinator, school.Umi.Id, twin.Id);
        var deliveries = new Deliveries(school.Premises);
        var table = new MemoryStream(Encoding.UTF8.GetBytes("record id,student number,given,family,role\nrec-u,1001,Umi,Hallgrímsson,teacher\n"));
        await deliveries.Receive(school.Coordinator, school.Years[0].Id, "people.csv", table, CancellationToken.None);
        Leaves();
        school.Premises.Db.Write(c => { Store.Closing.TakeHomeStore.NoteLeavers(c, school.Premises.Clock.Today); });

        erasing.Erase(school.Coordinator, school.Umi.Id, "Umi Hallgrímsson");

        Everywhere("Hallgr").ShouldBeEmpty();
        Everywhere("zq7777").ShouldBeEmpty();
        Refused(() => new Leavers(school.Premises).BringBack(school.Coordinator, [school.Umi.Id])).ShouldBe("person-erased");
    }

    [Fact]
    public void A_take_home_of_which_nobody_knows_what_it_holds_waits_as_if_all_of_it_stood_nowhere_else()
    {
        school.OpenClass();
        school.Premises.Db.Write(c =>
        {
            var now = school.Clock.GetCurrentInstant();
            var file = school.Premises.Files.Make(s => s.Write("not read yet"u8));
            Store.Workspaces.ItemStore.AddBlob(c, file, now);
            Store.Closing.TakeHomeStore.Put(c, new() { PersonId = school.Umi.Id, YearId = school.Years[0].Id, Name = "home.zip", Sha256 = file.Sha256, Files = 4, Classes = 1, MadeAt = now, KeepUntil = school.Premises.Clock.Today.PlusDays(400) });
        });
        Leaves();
        school.Premises.Db.Write(c => { Store.Closing.TakeHomeStore.NoteLeavers(c, school.Premises.Clock.Today); });

        erasing.Preview(school.Umi.Id).Bar.ShouldBe(ErasureBar.NotFetched);
        Refused(() => erasing.Erase(school.Coordinator, school.Umi.Id, "Umi Hallgrímsson")).ShouldBe("erase-not-yet");
    }
}
