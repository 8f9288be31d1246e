using SpringLoft.App.People;
using SpringLoft.Core.People;
using SpringLoft.Store.People;

namespace SpringLoft.App.Tests.People;

public class SlipsTests : SchoolTest
{
    private Slips Slips => new(school.Premises);

    private Slip SlipOf(Caller who, Caller? by = null) => Slips.Of(by ?? school.Lead, school.Class).Single(s => s.Person == who.Id);

    private string PhraseOf(Caller who, Caller? by = null) => Slips.Show(by ?? school.Lead, school.Class, [who.Id]).Single().Phrase;

    // As somebody whom the school's records put there, and who has not signed in yet.
    private void ByRecords(params Caller[] students) => school.Premises.Db.Write(c =>
    {
        foreach (var s in students)
        {
            Store.Rosters.RosterStore.Put(c, school.Class, s.Id, ClassRole.Student, school.Premises.Clock.Now, Core.Rosters.EnrolledBy.Feed);
            PersonStore.SetPassword(c, s.Id, SigningIn.Hash("acorn-owl-oak-11"), mustChange: true, null, school.Premises.Clock.Now, "acorn-owl-oak-11");
        }
    });

    private IReadOnlyList<string> Noted(string act) => [.. school.Read(c => Dapper.SqlMapper.Query<string>(c, "SELECT detail FROM audit WHERE act = @act ORDER BY id", new { act }))];

    [Fact]
    public void A_new_slip_signs_its_student_in_once_and_is_not_readable_after_that()
    {
        school.OpenClass();
        ByRecords(school.Umi);
        SlipOf(school.Umi).ShouldSatisfyAllConditions(s => s.Waits.ShouldBeTrue(), s => s.HasOwn.ShouldBeFalse(), s => s.MayMake.ShouldBeTrue());

        Slips.Renew(school.Lead, school.Class, [school.Umi.Id]);
        var phrase = PhraseOf(school.Umi);
        var (me, _, _) = school.SignIn("umi", phrase);

        me.MustChangePassword.ShouldBeTrue();
        SlipOf(school.Umi).ShouldSatisfyAllConditions(s => s.Waits.ShouldBeFalse(), s => s.HasOwn.ShouldBeFalse());
        Slips.Show(school.Lead, school.Class, [school.Umi.Id]).ShouldBeEmpty();
        Refused(() => school.SignIn("umi", "acorn-owl-oak-11")).ShouldBe("sign-in-wrong");
    }

    [Fact]
    public void A_new_slip_ends_the_sign_ins_of_before()
    {
        school.OpenClass();
        ByRecords(school.Umi);
        var token = school.SignIn("umi", "acorn-owl-oak-11").Token;

        Slips.Renew(school.CoTeacher, school.Class, [school.Umi.Id]);

        school.Sessions.Who(token).ShouldBeNull();
    }

    [Fact]
    public void A_teacher_who_enrolls_any_student_can_not_sign_in_as_them()
    {
        school.OpenClass();
        var took = school.Making.Make(school.OtherTeacher, school.New("Weaving"));
        school.Premises.Db.Write(c => PersonStore.SetPassword(c, school.Outsider.Id, SigningIn.Hash("acorn-owl-oak-11"), mustChange: true, null, school.Premises.Clock.Now, "acorn-owl-oak-11"));
        school.Roster.Enroll(school.OtherTeacher, took, [school.Outsider.Id, school.Umi.Id], ClassRole.Student);

        Refused(() => Slips.Show(school.OtherTeacher, took, [school.Outsider.Id])).ShouldBe("slip-too-new");
        Refused(() => Slips.Renew(school.OtherTeacher, took, [school.Outsider.Id])).ShouldBe("slip-too-new");
        Slips.Of(school.OtherTeacher, took).ShouldAllBe(s => s.Bar == SlipBar.TooNew && !s.MayMake && s.From == new LocalDate(2026, 9, 10));
        // Nor by waiting, where somebody has chosen a password.
        school.Clock.AdvanceDays(3);
        Refused(() => Slips.Renew(school.OtherTeacher, took, [school.Umi.Id])).ShouldBe("slip-chosen");
        Slips.Show(school.OtherTeacher, took, [school.Outsider.Id]).Single().Phrase.ShouldBe("acorn-owl-oak-11");
        Noted("saw a first password").ShouldBe(["Tāne Yılmaz"]);
        // Taken off and put back, the days begin anew.
        school.Roster.RemoveMany(school.OtherTeacher, took, [school.Outsider.Id]);
        school.Roster.Enroll(school.OtherTeacher, took, [school.Outsider.Id], ClassRole.Student);
        Refused(() => Slips.Show(school.OtherTeacher, took, [school.Outsider.Id])).ShouldBe("slip-too-new");
        school.SignIn("umi").Me.Id.ShouldBe(school.Umi.Id);
    }

    [Fact]
    public void Staff_who_stand_on_a_roster_as_students_have_no_slip_there()
    {
        school.OpenClass();
        ByRecords(school.OtherTeacher, school.Coordinator);
        school.Clock.AdvanceDays(100);

        foreach (var staff in (Caller[])[school.OtherTeacher, school.Coordinator])
        {
            SlipOf(staff).Bar.ShouldBe(SlipBar.IsStaff);
            Refused(() => Slips.Show(school.Lead, school.Class, [staff.Id])).ShouldBe("slip-staff");
            Refused(() => Slips.Renew(school.Lead, school.Class, [staff.Id])).ShouldBe("slip-staff");
        }
    }

    [Fact]
    public void A_coordinators_yes_or_own_enrolling_lets_the_class_have_the_slip_at_once()
    {
        school.Roster.Enroll(school.Lead, school.Class, [school.Umi.Id], ClassRole.Student);
        school.Roster.Enroll(school.Coordinator, school.Class, [school.Rúna.Id], ClassRole.Student);
        SlipOf(school.Umi).Bar.ShouldBe(SlipBar.TooNew);
        SlipOf(school.Rúna).Bar.ShouldBe(SlipBar.None);
        SlipOf(school.Umi, school.Coordinator).ShouldSatisfyAllConditions(s => s.Bar.ShouldBe(SlipBar.None), s => s.ForClass.ShouldBe(SlipBar.TooNew), s => s.From.ShouldBe(new LocalDate(2026, 9, 10)));

        Slips.SayYes(school.Coordinator, school.Class, [school.Umi.Id]);

        SlipOf(school.Umi).Bar.ShouldBe(SlipBar.None);
        Noted("let a class have a slip").ShouldBe(["Umi Hallgrímsson"]);
    }

    [Fact]
    public void Who_adds_a_new_student_has_the_slip_that_they_made()
    {
        var added = new SchoolDirectory(school.Premises).Add(school.Lead, new("Nova", "Winther", SchoolRole.Student, "6", "9001", null, null), evenSo: false);
        school.Roster.Enroll(school.Lead, school.Class, [added], ClassRole.Student);

        Slips.Show(school.Lead, school.Class, [added]).Single().Name.ShouldBe("Nova Winther");
        // Another class that enrolls them by hand has not.
        var other = school.Making.Make(school.OtherTeacher, school.New("Weaving"));
        school.Roster.Enroll(school.OtherTeacher, other, [added], ClassRole.Student);
        Refused(() => Slips.Show(school.OtherTeacher, other, [added])).ShouldBe("slip-too-new");
    }

    [Fact]
    public void Slips_are_made_for_students_of_the_roster_and_for_nobody_else()
    {
        school.OpenClass();
        ByRecords(school.Umi);

        Refused(() => Slips.Renew(school.Lead, school.Class, [school.Umi.Id, school.Outsider.Id])).ShouldBe("not-found");
        Refused(() => Slips.Renew(school.Lead, school.Class, [school.CoTeacher.Id])).ShouldBe("not-found");
        Refused(() => Slips.Renew(school.Lead, school.Class, [])).ShouldBe("missing");
        PhraseOf(school.Umi).ShouldBe("acorn-owl-oak-11");
    }

    [Fact]
    public void The_coordinator_has_the_slips_of_anybody_staff_too_by_name()
    {
        school.OpenClass();
        Slips.Renew(school.Coordinator, null, [school.Umi.Id, school.CoTeacher.Id]);

        var slips = Slips.Of(school.Coordinator, [school.Umi.Id, school.CoTeacher.Id, school.Lead.Id]);
        slips.Select(s => s.SortName).ShouldBe(slips.Select(s => s.SortName).Order(StringComparer.OrdinalIgnoreCase));
        var shown = Slips.Show(school.Coordinator, null, [school.Umi.Id, school.CoTeacher.Id, school.Lead.Id]);

        shown.Select(s => s.Person).ShouldBe([school.Umi.Id, school.CoTeacher.Id], ignoreOrder: true);
        school.SignIn("co", shown.Single(s => s.Person == school.CoTeacher.Id).Phrase).Me.MustChangePassword.ShouldBeTrue();
        using var pdf = Slips.Pdf(shown, "http://school.example", SpringLoft.Formats.Print.Paper.A4, letters: false).Content;
        pdf.Length.ShouldBeGreaterThan(1000);
    }

    [Fact]
    public void Nobody_makes_a_slip_for_themselves_for_who_has_left_or_for_who_is_not_there()
    {
        school.OpenClass();
        new Leavers(school.Premises).Mark(school.Coordinator, [school.Outsider.Id], false);

        Refused(() => Slips.Renew(school.Coordinator, null, [school.Umi.Id, school.Coordinator.Id])).ShouldBe("slip-own");
        Refused(() => Slips.Renew(school.Coordinator, null, [school.Umi.Id, school.Outsider.Id])).ShouldBe("person-left");
        Refused(() => Slips.Renew(school.Coordinator, null, [school.Umi.Id, new(987654)])).ShouldBe("not-found");
        Refused(() => Slips.Renew(school.Coordinator, null, [])).ShouldBe("missing");
        Refused(() => Slips.Of(school.Coordinator, [.. Enumerable.Range(1, Slips.MostAtOnce + 1).Select(i => new PersonId(i))])).ShouldBe("too-many");
        SlipOf(school.Umi).HasOwn.ShouldBeTrue();
        Slips.Of(school.Coordinator, [school.Outsider.Id]).ShouldBeEmpty();
    }

    [Fact]
    public void A_phrase_is_three_plain_words_and_two_digits_that_the_rules_take_and_no_slip_tells_another()
    {
        FirstPhrase.Words.ShouldAllBe(w => w.All(char.IsAsciiLetterLower) && w.Length >= 3);
        FirstPhrase.Words.Distinct().Count().ShouldBe(128);
        FirstPhrase.Make(_ => 0).ShouldBe("acorn-acorn-acorn-10");
        var random = new Random(7);
        var made = Enumerable.Range(0, 1000).Select(_ => FirstPhrase.Make(random.Next)).ToList();
        made.Distinct().Count().ShouldBe(1000);
        made.ShouldAllBe(p => SignInRules.CheckNew(p, "umi", false, false, Array.Empty<string>()) == null);
    }
}
