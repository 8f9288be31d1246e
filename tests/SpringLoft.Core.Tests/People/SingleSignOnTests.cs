using SpringLoft.Core.People;
using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Tests.People;

/// <summary>Whom the word of a provider lets in.</summary>
public class SingleSignOnTests
{
    private static readonly ProviderRules Rules = new("Island District", PasswordsOffFor.Nobody, TrustsEmail: false, Set(), Set(), Set());

    private static readonly MeantPerson Umi = Person(1, SchoolRole.Student, record: "r1", number: "1001", userName: "umi");
    private static readonly MeantPerson Oisín = Person(2, SchoolRole.Teacher, email: "oisin@school.example", userName: "oisin");

    private static HashSet<string> Set(params string[] of) => [.. of];

    private static MeantPerson Person(long id, SchoolRole role, string? record = null, string? number = null, string? email = null, string userName = "", bool active = true, bool other = false) =>
        new(new(new(id), record, number, email, userName, new("Given", "Family"), null), role, active, other);

    private static ProviderWord Word(string? record = null, string? number = null, string? email = null, string? userName = null, bool emailChecked = false, string[]? groups = null, string[]? methods = null) =>
        new(new(record, number, email, userName, null, false, null), emailChecked, Set(groups ?? []), Set(methods ?? []));

    private static string Refused(Action act) => Should.Throw<RefusedException>(act).Refusal.Code;

    private static string Refused(ProviderWord word, ProviderRules? rules = null, MeantPerson? account = null, params MeantPerson[] all) => Refused(() => SingleSignOn.Decide(rules ?? Rules, word, account, all));

    [Fact]
    public void The_first_time_somebody_is_known_by_record_number_or_user_name()
    {
        foreach (var word in new[] { Word(record: "r1"), Word(number: "1001"), Word(userName: "UMI"), Word(record: "r1", number: "1001", userName: "umi") })
            SingleSignOn.Decide(Rules, word, null, [Umi, Oisín]).ShouldBe(new(Umi.Known.Id, First: true, ShowedStep: false));
    }

    [Fact]
    public void Afterwards_the_account_decides_whatever_else_is_said() =>
        SingleSignOn.Decide(Rules, Word(userName: "oisin", email: "changed@elsewhere.example"), Umi, [Oisín]).ShouldBe(new(Umi.Known.Id, First: false, ShowedStep: false));

    [Fact]
    public void Nobody_is_made_of_what_a_provider_says()
    {
        Refused(Word(userName: "visitor")).ShouldBe("sign-on-nobody");
        Refused(Word(), all: [Umi]).ShouldBe("sign-on-nobody");
    }

    [Fact]
    public void A_name_alone_lets_nobody_in()
    {
        var word = new ProviderWord(new(null, null, null, null, new("Given", "Family"), true, null), true, Set(), Set());

        Refused(word, all: [Umi]).ShouldBe("sign-on-nobody");
    }

    [Fact]
    public void Two_people_named_are_nobody() => Refused(Word(number: "1001", userName: "oisin"), all: [Umi, Oisín]).ShouldBe("sign-on-two");

    [Fact]
    public void An_email_says_who_somebody_is_only_when_the_provider_or_the_operator_vouches_for_it()
    {
        Refused(Word(email: "oisin@school.example"), all: [Oisín]).ShouldBe("sign-on-email");

        SingleSignOn.Decide(Rules, Word(email: "Oisin@School.example", emailChecked: true), null, [Oisín]).Person.ShouldBe(Oisín.Known.Id);
        SingleSignOn.Decide(Rules with { TrustsEmail = true }, Word(email: "oisin@school.example"), null, [Oisín]).Person.ShouldBe(Oisín.Known.Id);
    }

    [Fact]
    public void An_email_that_nobody_vouches_for_neither_helps_nor_hinders() =>
        SingleSignOn.Decide(Rules, Word(number: "1001", email: "oisin@school.example"), null, [Umi, Oisín]).Person.ShouldBe(Umi.Known.Id);

    [Fact]
    public void A_second_account_of_one_provider_is_not_taken_for_somebody_who_has_one()
    {
        Refused(Word(number: "1001"), all: [Umi with { HasOtherAccount = true }]).ShouldBe("sign-on-other-account");
        SingleSignOn.Decide(Rules, Word(), Umi with { HasOtherAccount = true }, []).First.ShouldBeFalse("their own is the one that they have");
    }

    [Fact]
    public void Who_has_left_is_turned_away_by_account_and_by_number()
    {
        var left = Umi with { Active = false };

        Refused(Word(number: "1001"), all: [left]).ShouldBe("sign-on-left");
        Refused(Word(), account: left).ShouldBe("sign-on-left");
    }

    [Theory]
    [InlineData(SchoolRole.Student, "pupils", true)]
    [InlineData(SchoolRole.Student, "employees", false)]
    [InlineData(SchoolRole.Teacher, "employees", true)]
    [InlineData(SchoolRole.Coordinator, "employees", true)]
    [InlineData(SchoolRole.Teacher, "pupils", false)]
    [InlineData(SchoolRole.Coordinator, null, false)]
    public void Groups_say_who_comes_in_as_what(SchoolRole role, string? group, bool comesIn)
    {
        var rules = Rules with { StaffGroups = Set("employees"), StudentGroups = Set("pupils") };
        var person = Person(3, role, userName: "x");
        var word = Word(userName: "x", groups: group is null ? [] : [group]);

        if (comesIn) SingleSignOn.Decide(rules, word, null, [person]).Person.ShouldBe(person.Known.Id);
        else Refused(word, rules, null, person).ShouldBe("sign-on-group");
        if (!comesIn) Refused(word, rules, person).ShouldBe("sign-on-group", "each time, not the first alone");
    }

    [Fact]
    public void Groups_of_staff_alone_leave_students_as_they_are() =>
        SingleSignOn.Decide(Rules with { StaffGroups = Set("employees") }, Word(number: "1001"), null, [Umi]).Person.ShouldBe(Umi.Known.Id);

    // Values of the claim "amr": RFC 8176, section 2.
    [Theory]
    [InlineData(new[] { "pwd" }, false)]
    [InlineData(new[] { "pwd", "otp" }, true)]
    [InlineData(new[] { "mfa" }, true)]
    [InlineData(new string[0], false)]
    public void A_second_step_shown_there_counts_where_the_operator_says_so(string[] methods, bool counts)
    {
        SingleSignOn.Decide(Rules with { StepMethods = Set("otp", "mfa") }, Word(userName: "oisin", methods: methods), null, [Oisín]).ShowedStep.ShouldBe(counts);
        SingleSignOn.Decide(Rules, Word(userName: "oisin", methods: methods), null, [Oisín]).ShowedStep.ShouldBeFalse();
    }

    [Theory]
    [InlineData(PasswordsOffFor.Nobody, false, false)]
    [InlineData(PasswordsOffFor.Students, true, false)]
    [InlineData(PasswordsOffFor.Staff, false, true)]
    [InlineData(PasswordsOffFor.Everybody, true, true)]
    public void Passwords_are_off_for_those_whom_the_rule_names(PasswordsOffFor rule, bool students, bool staff)
    {
        SingleSignOn.IsPasswordOff(rule, SchoolRole.Student).ShouldBe(students);
        foreach (var role in (SchoolRole[])[SchoolRole.Staff, SchoolRole.Teacher, SchoolRole.Coordinator]) SingleSignOn.IsPasswordOff(rule, role).ShouldBe(staff);
    }

    [Fact]
    public void Whoever_showed_a_second_step_elsewhere_is_through_the_door()
    {
        SecondStepRules.Of(SecondStepFor.Staff, SchoolRole.Teacher, has: true, shown: null, elsewhere: true).ShouldBe(Door.Open);
        SecondStepRules.Of(SecondStepFor.Staff, SchoolRole.Teacher, has: false, shown: null, elsewhere: true).ShouldBe(Door.Open);
        SecondStepRules.Of(SecondStepFor.Staff, SchoolRole.Teacher, has: true, shown: null).ShouldBe(Door.StepNeeded);
    }
}
