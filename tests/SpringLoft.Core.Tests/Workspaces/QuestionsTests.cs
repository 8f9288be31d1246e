using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Tests.Workspaces;

public class QuestionsTests
{
    private static readonly PersonId Teacher = new(1), Ada = new(2), Bo = new(3);
    private static readonly LocalDate Monday = new(2027, 6, 7);
    private long last;

    private TalkSaid Says(PersonId who, long? answers = null, int day = 0) => new(++last, who, who == Teacher, answers, Monday.PlusDays(day));

    private static long[] Wait(bool daily, params TalkSaid[] messages) => [.. Questions.Waiting(messages, daily).Select(m => m.Id)];

    [Fact]
    public void What_a_student_asks_waits_until_staff_answer_it() => Wait(false, Says(Ada), Says(Bo), Says(Teacher, 1)).ShouldBe([2]);

    [Fact]
    public void A_message_of_its_own_from_staff_answers_what_was_asked_before() => Wait(false, Says(Ada), Says(Bo), Says(Teacher), Says(Ada)).ShouldBe([4]);

    [Fact]
    public void What_another_student_answers_settles_nothing_and_asks_nothing() => Wait(false, Says(Ada), Says(Bo, 1), Says(Teacher, 1), Says(Bo, 1)).ShouldBeEmpty();

    [Fact]
    public void When_its_student_writes_on_it_waits_again() => Wait(false, Says(Ada), Says(Teacher, 1), Says(Ada, 2)).ShouldBe([3]);

    [Fact]
    public void What_students_answer_to_staff_is_no_question() => Wait(false, Says(Teacher), Says(Ada, 1), Says(Bo, 2)).ShouldBeEmpty();

    [Fact]
    public void Where_a_question_is_asked_each_day_the_first_message_of_a_day_is_its_answer() =>
        Wait(true, Says(Ada), Says(Bo), Says(Ada), Says(Ada, day: 1)).ShouldBe([3]);

    [Fact]
    public void What_answers_a_message_that_is_not_there_is_passed_over() => Wait(false, Says(Ada, 99), Says(Bo)).ShouldBe([2]);
}
