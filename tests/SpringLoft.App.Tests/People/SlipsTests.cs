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
