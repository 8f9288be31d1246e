using SpringLoft.App.People;
using SpringLoft.Core.People;

namespace SpringLoft.App.Tests.People;

public class SlipsTests : SchoolTest
{
    private Slips Slips => new(school.Premises);

    private SigningIn SigningIn => new(school.Premises);

    private Slip SlipOf(Caller who) => Slips.Of(school.Class).Single(s => s.Person == who.Id);

    [Fact]
    public void A_new_slip_signs_its_student_in_once_and_is_not_readable_after_that()
    {
        school.OpenClass();
        SlipOf(school.Umi).ShouldSatisfyAllConditions(s => s.Phrase.ShouldBeNull(), s => s.HasOwn.ShouldBeTrue());

        Slips.Renew(school.Lead, school.Class, [school.Umi.Id]);
        var phrase = SlipOf(school.Umi).Phrase!;
        var (me, _) = SigningIn.SignIn("umi", phrase);

        me.MustChangePassword.ShouldBeTrue();
        SlipOf(school.Umi).ShouldSatisfyAllConditions(s => s.Phrase.ShouldBeNull(), s => s.HasOwn.ShouldBeFalse());
        Refused(() => SigningIn.SignIn("umi", TinySchool.Password)).ShouldBe("sign-in-wrong");
        SlipOf(school.Rúna).HasOwn.ShouldBeTrue();
    }

    [Fact]
    public void A_new_slip_ends_the_sign_ins_of_before()
    {
        school.OpenClass();
        var (me, stamp) = SigningIn.SignIn("umi", TinySchool.Password);

        Slips.Renew(school.CoTeacher, school.Class, [school.Umi.Id]);

        SigningIn.Who(me.Id, stamp).ShouldBeNull();
    }

    [Fact]
    public void Slips_are_made_for_students_of_the_roster_and_for_nobody_else()
    {
        school.OpenClass();

        Refused(() => Slips.Renew(school.Lead, school.Class, [school.Umi.Id, school.Outsider.Id])).ShouldBe("not-found");
        Refused(() => Slips.Renew(school.Lead, school.Class, [school.CoTeacher.Id])).ShouldBe("not-found");
        Refused(() => Slips.Renew(school.Lead, school.Class, [])).ShouldBe("missing");
        SlipOf(school.Umi).HasOwn.ShouldBeTrue();
    }

    [Fact]
    public void The_coordinator_has_the_slips_of_anybody_staff_too_by_name()
    {
        school.OpenClass();
        Slips.Renew(school.Coordinator, null, [school.Umi.Id, school.CoTeacher.Id]);

        var slips = Slips.Of([school.Umi.Id, school.CoTeacher.Id, school.Lead.Id]);

        slips.Select(s => s.SortName).ShouldBe(slips.Select(s => s.SortName).Order(StringComparer.OrdinalIgnoreCase));
        slips.Where(s => s.Phrase is not null).Select(s => s.Person).ShouldBe([school.Umi.Id, school.CoTeacher.Id], ignoreOrder: true);
        SigningIn.SignIn(slips.Single(s => s.Person == school.CoTeacher.Id).UserName, slips.Single(s => s.Person == school.CoTeacher.Id).Phrase!).Item1.MustChangePassword.ShouldBeTrue();
        using var pdf = Slips.Pdf(slips, "http://school.example", SpringLoft.Formats.Print.Paper.A4, letters: false).Content;
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
        Refused(() => Slips.Of([.. Enumerable.Range(1, Slips.MostAtOnce + 1).Select(i => new PersonId(i))])).ShouldBe("too-many");
        SlipOf(school.Umi).HasOwn.ShouldBeTrue();
        Slips.Of([school.Outsider.Id]).ShouldBeEmpty();
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
        made.ShouldAllBe(p => SignInRules.CheckNew(p, "umi", false) == null);
    }
}
