using SpringLoft.Core.Rosters;
using SpringLoft.Core.Workspaces;
using static SpringLoft.Core.Tests.Rosters.SmallRecords;

namespace SpringLoft.Core.Tests.Rosters;

public class RosterComparisonTests
{
    private static readonly TodayPerson[] Ten = [.. Enumerable.Range(1, 20).Select(i => Person(i))];
    private static readonly RosterToday School = Today(Ten, [Class(1, section: "A"), Class(2, section: "B"), Class(3, "Tides")], Ten.Select(p => Member(1, p.Id.Value)));

    [Fact]
    public void A_delivery_that_says_what_is_there_changes_nothing()
    {
        var out1 = Compare(Same(School), School);

        out1.Changes.ShouldBeEmpty();
        out1.Same.ShouldBe(20);
    }

    [Fact]
    public void Accounts_that_were_joined_in_a_circle_end_nothing()
    {
        TodayPerson[] circle = [Person(30, number: "5000") with { JoinedInto = new(31) }, Person(31, number: "5001") with { JoinedInto = new(30) }];
        var t = School with { People = [.. School.People, .. circle] };

        Should.NotThrow(() => Compare(Same(t), t));
    }

    [Fact]
    public void Somebody_who_is_not_known_is_new_and_joins()
    {
        var d = Same(School);
        var changes = Compare(d with { People = [.. d.People, New("p99")], Enrollments = [.. d.Enrollments, In("k3", "p99")] }, School);

        changes.Only(ChangeKind.NewPerson).PersonRef.ShouldBe("p99");
        changes.Only(ChangeKind.Joins).ShouldSatisfyAllConditions(j => j.Class.ShouldBe(new ClassId(3)), j => j.Who.ShouldBe("Comer, New"), j => j.Holds.ShouldBeEmpty());
        changes.Changes.Count.ShouldBe(2);
    }

    [Fact]
    public void Somebody_made_by_hand_is_known_by_number_and_is_linked_not_made_again()
    {
        var byHand = Person(30, record: null, number: "5000", given: "Umi", family: "Hall");
        var t = School with { People = [.. School.People, byHand] };
        var d = Same(School);
        var changes = Compare(d with { People = [.. d.People, New("p30", "Umi", "Hall", "5000")] }, t);

        changes.Changes.ShouldHaveSingleItem().ShouldSatisfyAllConditions(c => c.Kind.ShouldBe(ChangeKind.ChangedPerson), c => c.Person.ShouldBe(byHand.Id), c => c.Why.ShouldContain("linked"));
    }

    [Fact]
    public void Two_of_one_name_with_numbers_of_their_own_are_two()
    {
        var there = Person(30, number: "5000", given: "Umi", family: "Hall");
        var t = School with { People = [.. School.People, there] };
        var d = Same(t);

        Compare(d with { People = [.. d.People, New("p31", "Umi", "Hall", "5001")] }, t).Only(ChangeKind.NewPerson).Holds.ShouldBeEmpty();
    }

    [Fact]
    public void A_name_without_any_number_that_two_people_have_waits_for_a_person_who_settles_it()
    {
        TodayPerson[] twins = [Person(30, record: null, number: null, given: "Umi", family: "Hall"), Person(31, record: null, number: null, given: "Umi", family: "Hall")];
        var t = School with { People = [.. School.People, .. twins] };
        var d = Same(School);
        d = d with { People = [.. d.People, New("p50", "Umi", "Hall")], Enrollments = [.. d.Enrollments, In("k3", "p50")] };
        var changes = Compare(d, t);

        changes.Holds.ShouldHaveSingleItem().Candidates.ShouldBe([new(30), new(31)]);
        changes.Changes.ShouldAllBe(c => c.Holds.Contains("person:p50"));
        Compare(d, t, ("p50", new PersonId(31))).ShouldSatisfyAllConditions(c => c.Only(ChangeKind.Joins).Person.ShouldBe(new PersonId(31)), c => c.Holds.ShouldBeEmpty());
        Compare(d, t, ("p50", null)).Changes.Select(c => c.Kind).ShouldBe([ChangeKind.NewPerson, ChangeKind.Joins], ignoreOrder: true);
    }

    [Fact]
    public void Until_it_is_settled_nothing_is_taken_from_whoever_might_be_meant()
    {
        var d = Same(School);
        // Record id of one, student number of another.
        d = d with { People = [.. d.People.Where(p => p.Ref is not ("p1" or "p2")), New("p1", "Given", "Family1", number: "1002")], Enrollments = [.. d.Enrollments.Where(e => e.PersonRef is not ("p1" or "p2"))] };
        var changes = Compare(d, School);

        changes.Changes.Where(c => c.Kind is ChangeKind.PersonGone or ChangeKind.Leaves).ShouldAllBe(c => c.Holds.Contains("person:p1"));
    }

    // p1's record under p2's number: the records have mixed up two people.
    private static RosterDelivery Mixed()
    {
        var d = Same(School);
        return d with { People = [.. d.People.Where(p => p.Ref is not ("p1" or "p2")), New("p1", "Given", "Family1", number: "1002") with { Line = 7 }], Enrollments = [.. d.Enrollments.Where(e => e.PersonRef is not ("p1" or "p2"))] };
    }

    [Fact]
    public void Settled_as_whom_the_record_names_a_number_that_is_somebody_else_s_is_left_out_and_told()
    {
        var changes = Compare(Mixed(), School, ("p1", new PersonId(1)));

        changes.AsSettled["p1"].StudentNumber.ShouldBeNull();
        changes.Findings.ShouldHaveSingleItem().ShouldSatisfyAllConditions(f => f.Line.ShouldBe(7), f => f.Text.ShouldContain("1002 is that of Family2, Given"));
        changes.Changes.Where(c => c.Person == new PersonId(1) && c.Kind != ChangeKind.Leaves).ShouldBeEmpty();
    }

    [Fact]
    public void Settled_as_whom_the_number_names_the_record_becomes_theirs_and_nothing_is_taken_from_who_had_it()
    {
        var changes = Compare(Mixed(), School, ("p1", new PersonId(2)));

        changes.Changes.Where(c => c.Kind == ChangeKind.ChangedPerson).Select(c => (c.Person, c.PersonRef is null)).ShouldBe([(new PersonId(1), true), (new PersonId(2), false)]);
        changes.Changes.ShouldNotContain(c => c.Kind == ChangeKind.PersonGone);
        changes.Findings.ShouldBeEmpty();
    }

    [Fact]
    public void Settled_as_somebody_new_the_record_is_the_new_one_s_and_the_number_stays_whose_it_is()
    {
        var changes = Compare(Mixed(), School, ("p1", null));

        changes.Only(ChangeKind.NewPerson).PersonRef.ShouldBe("p1");
        changes.AsSettled["p1"].ShouldSatisfyAllConditions(p => p.RecordId.ShouldBe("p1"), p => p.StudentNumber.ShouldBeNull());
        changes.Only(ChangeKind.ChangedPerson).ShouldSatisfyAllConditions(c => c.Person.ShouldBe(new PersonId(1)), c => c.PersonRef.ShouldBeNull(), c => c.Why.ShouldContain("no longer linked"));
    }

    [Theory]
    [InlineData(SchoolRole.Student, SchoolRole.Teacher, "is a student here and staff in the delivery")]
    [InlineData(SchoolRole.Teacher, SchoolRole.Student, "is staff here and a student in the delivery")]
    [InlineData(SchoolRole.Coordinator, SchoolRole.Student, "is staff here and a student in the delivery")]
    public void No_row_makes_a_student_staff_or_staff_a_student_before_a_person_says_so(SchoolRole here, SchoolRole said, string why)
    {
        var t = School with { People = [.. School.People, Person(40, role: here)], Members = [.. School.Members, Member(3, 40, here == SchoolRole.Student ? ClassRole.Student : ClassRole.CoTeacher)] };
        var d = Same(t);
        d = d with { People = [.. d.People.Select(p => p.Ref == "p40" ? p with { Role = said } : p)], Enrollments = [.. d.Enrollments.Where(e => e.PersonRef != "p40")] };

        var held = Compare(d, t);

        held.Holds.ShouldHaveSingleItem().ShouldSatisfyAllConditions(h => h.Kind.ShouldBe(HoldKind.PersonUnclear), h => h.Candidates.ShouldBe([new(40)]), h => h.Text.ShouldContain(why));
        held.Changes.ShouldAllBe(c => c.Holds.Contains("person:p40"));
        var settled = Compare(d, t, ("p40", new PersonId(40)));
        settled.Holds.Where(h => h.Kind != HoldKind.StaffLoses).ShouldBeEmpty();
        if (here == SchoolRole.Coordinator) settled.Changes.ShouldAllBe(c => c.Kind == ChangeKind.Leaves);
        else settled.Only(ChangeKind.ChangedPerson).Why.ShouldContain(" to ");
    }

    [Fact]
    public void Somebody_gone_from_the_records_is_gone_whatever_role_they_are_gone_in()
    {
        var t = School with { People = [.. School.People, Person(40, role: SchoolRole.Teacher)] };
        var d = Same(t);

        Compare(d with { People = [.. d.People.Select(p => p.Ref == "p40" ? p with { Role = SchoolRole.Student, Gone = true } : p)] }, t).Only(ChangeKind.PersonGone).Person.ShouldBe(new PersonId(40));
    }

    /// <summary>As a plain table says it: classes by name, people by number.</summary>
    private static RosterDelivery Table(bool whole, params (string Class, long Person)[] rows) => new(
        [.. rows.Select(r => r.Person).Distinct().Select(p => Said(School.People.Single(x => x.Id.Value == p)) with { Ref = $"number {1000 + p}", RecordId = null })],
        [.. rows.Select(r => r.Class).Distinct().Select(k => new DeliveredClass(k, null, k, null, null, null, null, false, 2))],
        [.. rows.Select(r => In(r.Class, $"number {1000 + r.Person}"))], new("table.csv", false), new("table.csv", false), new("table.csv", whole), null, null);

    [Fact]
    public void A_table_finds_classes_by_name_also_those_that_follow_the_records()
    {
        var k = School.Classes[2];
        var t = School with { Members = [.. School.Members.Where(m => m.Class != k.Id || m.Person.Value != 1)] };

        Compare(Table(false, (k.Name.ToUpperInvariant(), 1)), t).Changes.ShouldHaveSingleItem().ShouldSatisfyAllConditions(c => c.Kind.ShouldBe(ChangeKind.Joins), c => c.Class.ShouldBe(k.Id));
        Compare(Table(false, ("No such class", 1)), t).ShouldSatisfyAllConditions(c => c.Changes.ShouldBeEmpty(), c => c.Findings.ShouldHaveSingleItem().Text.ShouldContain("No such class"));
    }

    [Fact]
    public void A_whole_table_is_whole_for_the_classes_that_it_names_and_takes_nobody_off_another()
    {
        var (k, other) = (School.Classes[0], School.Classes[1]);
        long[] there = [.. School.Members.Where(m => m.Class == k.Id).Select(m => m.Person.Value)];
        var t = School with { Members = [.. School.Members, Member(k.Id.Value, 60, by: EnrolledBy.Hand), Member(other.Id.Value, 5)], People = [.. School.People, Person(60)] };

        var changes = Compare(Table(true, [.. there.Skip(1).Select(p => (k.Name, p))]), t).Changes;

        changes.ShouldHaveSingleItem().ShouldSatisfyAllConditions(c => c.Kind.ShouldBe(ChangeKind.Leaves), c => c.Person.ShouldBe(new PersonId(there[0])), c => c.Why.ShouldBe("not in the table"));
        Compare(Table(false, [.. there.Skip(1).Select(p => (k.Name, p))]), t).Changes.ShouldBeEmpty();
    }

    [Fact]
    public void Out_of_one_class_and_into_another_of_the_course_is_a_move()
    {
        var d = Same(School);
        var changes = Compare(d with { Enrollments = [.. d.Enrollments.Where(e => e.PersonRef != "p1"), In("k2", "p1")] }, School);

        changes.Changes.ShouldHaveSingleItem().ShouldSatisfyAllConditions(c => c.Kind.ShouldBe(ChangeKind.Moves), c => c.FromClass.ShouldBe(new ClassId(1)), c => c.Class.ShouldBe(new ClassId(2)));
    }

    [Fact]
    public void Into_another_course_is_no_move()
    {
        var d = Same(School);

        Compare(d with { Enrollments = [.. d.Enrollments.Where(e => e.PersonRef != "p1"), In("k3", "p1")] }, School).Changes.Select(c => c.Kind).ShouldBe([ChangeKind.Joins, ChangeKind.Leaves], ignoreOrder: true);
    }

    [Theory]
    [InlineData(EnrolledBy.Hand)]
    [InlineData(EnrolledBy.Code)]
    [InlineData(EnrolledBy.Invitation)]
    public void What_a_person_enrolled_no_delivery_takes_off(EnrolledBy by)
    {
        var t = School with { Members = [.. School.Members, Member(3, 5, by: by)] };

        Compare(Same(School), t).Changes.ShouldBeEmpty();
        // Also where the records no longer name the person, or say that they have left.
        var d = Same(School);
        d = d with { People = [.. d.People.Where(p => p.Ref != "p5")], Enrollments = [.. d.Enrollments.Where(e => e.PersonRef != "p5")] };
        Compare(d, t).Changes.Where(c => c.Kind == ChangeKind.Leaves).Select(c => c.Class).ShouldBe([new ClassId(1)]);
    }

    [Fact]
    public void A_class_keeps_its_lead_teacher()
    {
        var t = School with { People = [.. School.People, Person(40, role: SchoolRole.Teacher)], Members = [.. School.Members, Member(1, 40, ClassRole.Lead)] };
        var d = Same(t);

        Compare(d with { Enrollments = [.. d.Enrollments.Where(e => e.PersonRef != "p40")] }, t).Changes.ShouldBeEmpty();
    }

    [Fact]
    public void Where_people_here_said_who_leads_no_delivery_adds_another_lead()
    {
        var staff = School with { People = [.. School.People, Person(40, role: SchoolRole.Teacher), Person(41, role: SchoolRole.Teacher)] };
        var d = Same(staff);
        d = d with { Enrollments = [.. d.Enrollments, In("k1", "p40", ClassRole.Lead)] };

        // Led by somebody else, by hand: whom the records call lead comes as co-teacher, and stays it the next day.
        var handed = staff with { Members = [.. staff.Members, Member(1, 41, ClassRole.Lead, EnrolledBy.Hand)] };
        Compare(d, handed).Only(ChangeKind.Joins).ShouldSatisfyAllConditions(c => c.Role.ShouldBe(ClassRole.CoTeacher), c => c.Why.ShouldContain("another was made its lead here"));
        Compare(d, handed with { Members = [.. handed.Members, Member(1, 40, ClassRole.CoTeacher)] }).Changes.ShouldBeEmpty();
        // The one of before, who stepped down by hand.
        Compare(d, handed with { Members = [.. handed.Members, Member(1, 40, ClassRole.CoTeacher, EnrolledBy.Hand)] }).Changes.ShouldBeEmpty();

        // Led by themselves, or by nobody whom people here named.
        Compare(d, staff with { Members = [.. staff.Members, Member(1, 40, ClassRole.Lead, EnrolledBy.Hand)] }).Changes.ShouldBeEmpty();
        Compare(d, staff).Only(ChangeKind.Joins).Role.ShouldBe(ClassRole.Lead);
        Compare(d, staff with { Members = [.. staff.Members, Member(1, 41, ClassRole.Lead, EnrolledBy.Hand, left: true)] }).Only(ChangeKind.Joins).Role.ShouldBe(ClassRole.Lead);
    }

    [Fact]
    public void Somebody_who_is_gone_becomes_inactive_and_leaves_their_classes_and_comes_back_the_same()
    {
        var d = Same(School);
        d = d with { People = [.. d.People.Where(p => p.Ref != "p1")], Enrollments = [.. d.Enrollments.Where(e => e.PersonRef != "p1")] };

        Compare(d, School).Changes.Select(c => c.Kind).ShouldBe([ChangeKind.PersonGone, ChangeKind.Leaves]);
        var left = School with { People = [.. School.People.Select(p => p.Id.Value == 1 ? p with { Active = false } : p)], Members = [.. School.Members.Select(m => m.Person.Value == 1 ? m with { Left = true } : m)] };
        Compare(Same(School), left).Changes.Select(c => (c.Kind, c.Person!.Value.Value)).ShouldBe([(ChangeKind.PersonBack, 1), (ChangeKind.Joins, 1)]);
    }

    [Fact]
    public void A_delta_changes_only_what_it_names()
    {
        var d = Whole([Said(Ten[0] with { Grade = "7" }), Said(Ten[1], gone: true)], [], [In("k3", "p5"), In("k1", "p6", gone: true)], whole: false);
        var changes = Compare(d, School);

        changes.Changes.Select(c => (c.Kind, c.Person!.Value.Value)).ShouldBe(
            [(ChangeKind.ChangedPerson, 1), (ChangeKind.PersonGone, 2), (ChangeKind.Joins, 5), (ChangeKind.Leaves, 2), (ChangeKind.Leaves, 6)], ignoreOrder: true);
    }

    [Fact]
    public void Rows_about_nobody_or_no_class_are_told_with_their_line_and_the_rest_comes()
    {
        var d = Same(School);
        var changes = Compare(d with { Enrollments = [.. d.Enrollments, new("nowhere", "p1", ClassRole.Student, false, 7), new("k3", "nobody", ClassRole.Student, false, 8), new("k3", "p1", ClassRole.Student, false, 9), new("k3", "p1", ClassRole.Student, false, 10), new("k3", "p2", ClassRole.CoTeacher, false, 11)] }, School);

        changes.Findings.Select(f => (f.Line, f.Column)).ShouldBe([(7, "classSourcedId"), (8, "userSourcedId"), (10, ""), (11, "role")]);
        changes.Only(ChangeKind.Joins).Person.ShouldBe(new PersonId(1));
    }

    [Fact]
    public void The_same_person_twice_under_two_ids_is_told_and_has_the_places_of_both()
    {
        var d = Same(School);
        var twice = New("other", "Given", "Family1") with { StudentNumber = "1001", RecordId = null };
        var changes = Compare(d with { People = [twice, .. d.People], Enrollments = [.. d.Enrollments, In("k3", "other")] }, School);

        changes.Only(ChangeKind.Joins).ShouldSatisfyAllConditions(c => c.Person.ShouldBe(new PersonId(1)), c => c.Class.ShouldBe(new ClassId(3)));
        changes.Findings.ShouldHaveSingleItem().Text.ShouldContain("same person as line");
    }

    [Fact]
    public void Whom_a_person_joined_stays_one_though_the_records_have_two()
    {
        var t = School with { People = [.. School.People, Person(70, record: "p70", active: false, given: "Other", family: "Spelling") with { JoinedInto = new(1) }] };
        var d = Same(School);
        var changes = Compare(d with { People = [New("p70", "Other", "Spelling", "1070"), .. d.People], Enrollments = [.. d.Enrollments, In("k3", "p70")] }, t);

        changes.Changes.ShouldHaveSingleItem().ShouldSatisfyAllConditions(c => c.Kind.ShouldBe(ChangeKind.Joins), c => c.Person.ShouldBe(new PersonId(1)));
        // And where the records come to have the other row alone: still the one, with the numbers they have here.
        var alone = Compare(d with { People = [New("p70", "Given", "Family1", "1070", grade: "7"), .. d.People.Where(p => p.Ref != "p1")] }, t);
        alone.Only(ChangeKind.ChangedPerson).ShouldSatisfyAllConditions(c => c.Person.ShouldBe(new PersonId(1)), c => c.Why.ShouldBe("grade 6 to 7"));
        alone.Changes.ShouldNotContain(c => c.Kind == ChangeKind.PersonGone || c.Kind == ChangeKind.NewPerson);
        // Said to be the other before the two were joined: nobody who was joined away comes back.
        Compare(d with { People = [New("n1", "Given", "Family1"), .. d.People.Where(p => p.Ref != "p1")] }, t, ("n1", new PersonId(70))).Changes.ShouldNotContain(c => c.Kind == ChangeKind.PersonBack || c.Person == new PersonId(70));
    }

    [Fact]
    public void A_sister_with_the_same_e_mail_is_asked_about_and_takes_nobody_s_account()
    {
        var first = School.People[0] with { Email = "family@tiny.invalid" };
        var t = School with { People = [first, .. School.People.Skip(1)] };
        var d = Same(t);
        var sister = New("p80", "Sister", first.Family, "1080", email: "Family@tiny.invalid");
        // The sister's row stands before; and once hers is the only one, since the first has left.
        var both = Compare(d with { People = [sister, .. d.People] }, t);
        var alone = Compare(d with { People = [sister, .. d.People.Skip(1)] }, t);

        both.Holds.ShouldHaveSingleItem().Text.ShouldContain("so is line");
        both.Changes.ShouldHaveSingleItem().Kind.ShouldBe(ChangeKind.NewPerson);
        alone.Holds.ShouldContain(h => h.Text.Contains("under another record and another name", StringComparison.Ordinal));
        alone.Changes.ShouldNotContain(c => c.Kind == ChangeKind.ChangedPerson);
        Compare(d with { People = [sister, .. d.People] }, t, ("p80", null)).ShouldSatisfyAllConditions(c => c.Only(ChangeKind.NewPerson).Holds.ShouldBeEmpty(), c => c.AsSettled["p80"].Email.ShouldBeNull());
    }

    [Fact]
    public void New_records_for_people_of_the_same_names_and_numbers_are_linked_without_a_question()
    {
        var d = Same(School);
        var renumbered = d with { People = [.. d.People.Select(p => p with { Ref = $"n{p.Ref}", RecordId = $"n{p.RecordId}" })], Enrollments = [.. d.Enrollments.Select(e => e with { PersonRef = $"n{e.PersonRef}" })] };
        var changes = Compare(renumbered, School);

        changes.Holds.ShouldBeEmpty();
        changes.Changes.ShouldAllBe(c => c.Kind == ChangeKind.ChangedPerson && c.Why.StartsWith("record id"));
    }

    [Fact]
    public void What_was_decided_about_a_record_is_not_asked_again_as_long_as_the_role_is_the_same()
    {
        var d = Mixed();
        RosterChanges Later(RosterDelivery delivery) => RosterComparison.Compare(delivery, School, new Dictionary<string, PersonId?>(), new Dictionary<string, PersonId> { ["p1"] = new(1) }, new HashSet<string>());

        Later(d).ShouldSatisfyAllConditions(c => c.Holds.ShouldNotContain(h => h.Kind == HoldKind.PersonUnclear), c => c.Findings.ShouldHaveSingleItem().Text.ShouldContain("is that of"));
        Later(d with { People = [.. d.People.Select(p => p with { Role = SchoolRole.Teacher })] }).Holds.ShouldContain(h => h.Kind == HoldKind.PersonUnclear && h.PersonRef == "p1");
    }

    [Fact]
    public void What_the_records_leave_blank_they_say_nothing_about()
    {
        var d = Same(School);

        Compare(d with { People = [.. d.People.Select(p => p with { Grade = null, StudentNumber = null, UserName = null })] }, School).Changes.ShouldBeEmpty();
    }

    [Fact]
    public void Who_coordinates_the_schools_technology_is_not_known_to_the_records()
    {
        var t = School with { People = [.. School.People, Person(40, role: SchoolRole.Coordinator)] };
        var d = Same(t);

        Compare(d with { People = [.. d.People.Select(p => p.Ref == "p40" ? p with { Role = SchoolRole.Teacher } : p)] }, t).Changes.ShouldBeEmpty();
    }

    [Theory]
    [InlineData("k1", "p1")] // on the roster already
    [InlineData("k3", "p1")] // known, and joins
    [InlineData("k3", "p99")] // new, and joins
    [InlineData("k9", "p1")] // of a class that is new
    public void A_place_that_is_said_twice_counts_once_and_the_second_row_is_told(string k, string p)
    {
        var d = Same(School);
        d = d with { People = [.. d.People, New("p99")], Classes = [.. d.Classes, Said(Class(9, "Rope", "Z"))], Enrollments = [.. d.Enrollments.Where(e => (e.ClassRef, e.PersonRef) != (k, p)), In(k, p), In(k, p)] };

        var out1 = Compare(d, School);

        out1.Findings.ShouldHaveSingleItem().Text.ShouldContain("says what an earlier row says");
        out1.Changes.Count(c => c.Kind == ChangeKind.Joins).ShouldBe(k == "k1" ? 0 : 1);
        out1.Changes.ShouldNotContain(c => c.Kind == ChangeKind.Leaves);
    }

    [Fact]
    public void A_change_is_the_same_however_often_a_delivery_is_compared_and_no_two_are_the_same()
    {
        var d = Same(School);
        d = d with { People = [.. d.People.Skip(1), New("p99"), New("p98")], Enrollments = [.. d.Enrollments.Skip(2), In("k3", "p99"), In("k3", "p98"), In("k2", "p5")] };

        var (once, again) = (Compare(d, School).Changes, Compare(d, School).Changes);

        once.Select(c => c.Key).Distinct().Count().ShouldBe(once.Count);
        again.Select(c => c.Key).ShouldBe(once.Select(c => c.Key), ignoreOrder: true);
        once.Count.ShouldBeGreaterThan(5);
    }
}
