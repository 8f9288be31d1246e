using Dapper;

namespace SpringLoft.Store.Tests.People;

/// <summary>Every place of the database that names a person is either what is theirs, which goes along when two accounts are joined, or says whose act it was, which stays.</summary>
public class WhoIsMeantTests : StoreTest
{
    // What is theirs: each is looked at by PersonJoinStore.
    private static readonly string[] GoesAlong =
    [
        "acknowledged.person_id", "assignment_given.person_id", "family_of.person_id", "folder.student_id", "group_member.person_id", "item.added_by", "join_wait.person_id", "member.person_id", "notice.author_id", "notice_seen.person_id", "package.student_id",
        "person.joined_into", "take_home.person_id", "talk_message.author_id", "talk_reader.person_id", "work.student_id", "work_comment.author_id", "work_file.added_by",
    ];

    // Whose act it was, and what belongs to the account alone: its sign-in, wrong join codes, what records brought it.
    private static readonly string[] Stays =
    [
        "acknowledged.home_noted_by", "activity.person_id", "asking.asked_by", "assignment.binned_by", "assignment_upload.by_id", "notice_upload.by_id", "audit.person_id", "class.welcome_by", "combined_roster.owner_id", "delivery.received_by", "delivery_applied.applied_by", "delivery_came.person_id", "delivery_hold.decided_by",
        "delivery_hold.settled_as", "folder.binned_by", "invitation.accepted_by", "invitation.sent_by", "lead_offer.by_id", "lead_offer.to_id", "item.binned_by", "item.changed_by", "item_version.by_id", "join_try.person_id", "person_apart.a", "person_apart.b",
        "news_quiet.person_id", "news_reader.person_id", "notice.withdrawn_by", "page_writer.person_id", "passkey.person_id", "person_join.by", "person_join.gone", "person_join.kept", "phrase.person_id", "plan_version.made_by", "provider_account.person_id", "recovery_code.person_id", "roll_line.lead_id", "run.started_by", "run_student.person_id", "score_import.by_id", "second_step.person_id", "session.person_id", "shelf.made_by", "sign_in.person_id", "sign_in.set_by", "sign_off.by_id", "year_begun.by_id", "talk_message.hidden_by",
    ];

    [Fact]
    public void A_new_place_is_decided_about() => Db.Read(c => AnyRows.Tables(c).SelectMany(t => c.Query($"PRAGMA foreign_key_list({t})").Where(k => (string)k.table == "person").Select(k => $"{t}.{(string)k.@from}")).ToList())
        .ShouldBe(GoesAlong.Concat(Stays), ignoreOrder: true);
}
