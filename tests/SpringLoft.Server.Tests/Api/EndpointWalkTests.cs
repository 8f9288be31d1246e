using System.Net.Http.Json;
using System.Text;
using System.Text.Json;

namespace SpringLoft.Server.Tests.Api;

/// <summary>
/// Walks every endpoint of the OpenAPI document as nobody and as people of every kind. Who may do what is written here a
/// second time, by hand, so that a slip in the one place where the server decides it is seen.
/// </summary>
public sealed class EndpointWalkTests(ServerAndSchool at) : IClassFixture<ServerAndSchool>
{
    private const string Nobody = "nobody", Outsider = "out", Student = "umi", OtherTeacher = "other", CoTeacher = "co", Lead = "lead", Coordinator = "coord";
    private static readonly string[] Everybody = [Nobody, Outsider, Student, OtherTeacher, CoTeacher, Lead, Coordinator];
    private static readonly string[] SignedIn = Everybody[1..];
    private static readonly string[] Staff = [OtherTeacher, CoTeacher, Lead, Coordinator];
    private static readonly string[] InClass = [Student, CoTeacher, Lead, Coordinator];
    private static readonly string[] ClassStaff = [CoTeacher, Lead, Coordinator];
    private static readonly string[] Leads = [Lead, Coordinator];

    private static readonly Dictionary<string, string[]> May = new()
    {
        ["signIn"] = Everybody,
        ["signOut"] = Everybody,
        ["me"] = SignedIn,
        ["changePassword"] = SignedIn,
        ["signIns"] = SignedIn,
        ["endSignIn"] = SignedIn,
        ["endOtherSignIns"] = SignedIn,
        // The second step: whoever is at the door shows it, staff set it up.
        ["secondStep"] = SignedIn,
        ["passSecondStep"] = SignedIn,
        ["askForPasskey"] = SignedIn,
        ["passByPasskey"] = SignedIn,
        ["beginApp"] = Staff,
        ["confirmApp"] = Staff,
        ["removeApp"] = Staff,
        ["renewRecoveryCodes"] = Staff,
        ["askForNewPasskey"] = Staff,
        ["addPasskey"] = Staff,
        ["removePasskey"] = Staff,
        ["endSecondStep"] = [Coordinator],
        // Single sign-on: the door shows who there is, and what it was told.
        ["providers"] = Everybody,
        ["signOnTold"] = Everybody,
        ["personAccounts"] = [Coordinator],
        ["forgetAccounts"] = [Coordinator],
        ["schoolRules"] = [Coordinator],
        ["previewSchoolRules"] = [Coordinator],
        ["setSchoolRules"] = [Coordinator],
        ["scales"] = Staff,
        ["addScale"] = [Coordinator],
        ["changeScale"] = [Coordinator],
        ["removeScale"] = [Coordinator],
        ["ownData"] = SignedIn,
        ["personData"] = [Coordinator],
        ["previewErasing"] = [Coordinator],
        ["erasePerson"] = [Coordinator],
        ["school"] = SignedIn,
        ["myClasses"] = SignedIn,
        ["today"] = SignedIn,
        ["seenToday"] = SignedIn,
        ["loft"] = SignedIn,
        ["board"] = Staff,
        ["plans"] = Staff,
        ["unfoldDraft"] = Staff,
        ["readOutline"] = [Coordinator],
        ["makePlan"] = [Coordinator],
        ["savePlan"] = [Coordinator],
        ["previewPut"] = Staff,
        ["putPlan"] = Staff,
        ["planRun"] = Staff,
        ["takeBackPut"] = Staff,
        ["courses"] = Staff,
        ["previewClass"] = Staff,
        ["makeClass"] = Staff,
        ["searchDirectory"] = Staff,
        ["directory"] = Staff,
        ["lookForPerson"] = Staff,
        ["addPerson"] = Staff,
        ["changePerson"] = [Coordinator],
        ["setActive"] = [Coordinator],
        ["previewLeaving"] = [Coordinator],
        ["setRole"] = [Coordinator],
        ["slipsOfPeople"] = [Coordinator],
        ["slipsOfPeopleAsPdf"] = [Coordinator],
        ["renewSlipsOfPeople"] = [Coordinator],
        ["showSlipsOfPeople"] = [Coordinator],
        ["duplicates"] = [Coordinator],
        ["setApart"] = [Coordinator],
        ["joins"] = [Coordinator],
        ["joinPeople"] = [Coordinator],
        ["undoJoin"] = [Coordinator],
        ["firstPasswords"] = [Coordinator],
        ["setFirstPasswords"] = [Coordinator],
        ["joinCode"] = ClassStaff,
        ["renewJoinCode"] = ClassStaff,
        ["stopJoinCode"] = ClassStaff,
        ["answerWaiting"] = ClassStaff,
        ["join"] = SignedIn,
        ["invitations"] = ClassStaff,
        ["invite"] = ClassStaff,
        ["withdrawInvitation"] = ClassStaff,
        ["invitation"] = SignedIn,
        ["acceptInvitation"] = SignedIn,
        ["outsideClass"] = ClassStaff,
        ["combinedRosters"] = Staff,
        ["makeCombined"] = Staff,
        ["combinedRoster"] = Staff,
        ["combinedMarking"] = Staff,
        ["exportCombinedScores"] = Staff,
        ["notices"] = SignedIn,
        ["postNotices"] = SignedIn,
        ["previewNotice"] = SignedIn,
        ["changeNotice"] = SignedIn,
        ["withdrawNotice"] = SignedIn,
        ["noticeReaders"] = SignedIn,
        ["uploadForNotice"] = ClassStaff,
        ["noticeFile"] = SignedIn,
        ["combinedScores"] = Staff,
        ["readCombinedScores"] = Staff,
        ["takeScoresBack"] = Staff,
        ["changeCombined"] = Staff,
        ["removeCombined"] = Staff,
        ["previewCombinedReturn"] = Staff,
        ["returnCombined"] = Staff,
        ["feed"] = [Coordinator],
        ["setFeed"] = [Coordinator],
        ["runFeed"] = [Coordinator],
        ["outbox"] = [Coordinator],
        ["letters"] = [Coordinator],
        ["families"] = [Coordinator],
        ["addContact"] = [Coordinator],
        ["changeContact"] = [Coordinator],
        ["removeContact"] = [Coordinator],
        ["letContactsBeWrittenTo"] = [Coordinator],
        ["setWeeklyLetter"] = [Coordinator],
        ["previewWeeklyLetter"] = [Coordinator],
        ["tryLetterAgain"] = [Coordinator],
        ["previewGroups"] = ClassStaff,
        ["makeManyGroups"] = ClassStaff,
        ["deliveries"] = [Coordinator],
        ["receiveDelivery"] = [Coordinator],
        ["delivery"] = [Coordinator],
        ["deliveryChanges"] = [Coordinator],
        ["deliveryClasses"] = [Coordinator],
        ["deliverySource"] = [Coordinator],
        ["confirmColumns"] = [Coordinator],
        ["decideHold"] = [Coordinator],
        ["applyDelivery"] = [Coordinator],
        ["takeDeliveryBack"] = [Coordinator],
        ["setDeliveryAside"] = [Coordinator],
        ["exportRosters"] = [Coordinator],
        ["exportRostersTable"] = [Coordinator],
        ["exportRoster"] = ClassStaff,
        ["previewRemoval"] = ClassStaff,
        ["removeMany"] = ClassStaff,
        ["includeOpenAssignments"] = ClassStaff,
        ["previewPosting"] = ClassStaff,
        ["setPosting"] = ClassStaff,
        ["lead"] = ClassStaff,
        ["previewLead"] = Leads,
        ["setLead"] = [Coordinator],
        ["offerLead"] = Leads,
        ["withdrawLeadOffer"] = Leads,
        ["leadOffers"] = Staff,
        ["answerLeadOffer"] = Staff,
        ["otherSets"] = ClassStaff,
        ["previewMove"] = ClassStaff,
        ["moveStudent"] = ClassStaff,
        ["earlierWork"] = ClassStaff,
        ["earlierFile"] = ClassStaff,
        ["ownReturned"] = InClass,
        ["ownReturnedFile"] = InClass,
        ["readClassTable"] = Staff,
        ["previewClassTable"] = Staff,
        ["makeClassTable"] = Staff,
        ["departments"] = Staff,
        ["makeDepartment"] = Staff,
        ["arrangements"] = Staff,
        ["readOutlineOfZip"] = [Coordinator],
        ["sharedThings"] = Staff,
        ["addSharedThing"] = [Coordinator],
        ["addSharedFile"] = [Coordinator],
        ["changeSharedThing"] = [Coordinator],
        ["binSharedThing"] = [Coordinator],
        ["bringBackSharedThing"] = [Coordinator],
        ["sharedThingContent"] = SignedIn,
        ["readResources"] = [Coordinator],
        ["exportResources"] = [Coordinator],
        ["userNaming"] = Staff,
        ["previewUserNaming"] = [Coordinator],
        ["setUserNaming"] = [Coordinator],
        ["naming"] = Staff,
        ["setNaming"] = [Coordinator],
        ["previewNaming"] = [Coordinator],
        ["renameClasses"] = [Coordinator],
        ["classCalendar"] = Everybody,
        ["makeClassCalendar"] = ClassStaff,
        ["retireClassCalendar"] = ClassStaff,
        ["years"] = Staff,
        ["yearCalendar"] = Staff,
        ["nextYearDraft"] = [Coordinator],
        ["previewYear"] = [Coordinator],
        ["addYear"] = [Coordinator],
        ["changeYear"] = [Coordinator],
        ["readCalendar"] = [Coordinator],
        ["audit"] = [Coordinator],
        ["checkAudit"] = [Coordinator],
        ["moveDate"] = [Coordinator],
        ["classHead"] = InClass,
        ["workspace"] = InClass,
        ["addFile"] = InClass,
        ["addLink"] = InClass,
        ["itemContent"] = InClass,
        ["fileItem"] = InClass,
        ["binItem"] = InClass,
        ["seenByAnyStudent"] = ClassStaff,
        ["seenBy"] = ClassStaff,
        ["blindSpots"] = ClassStaff,
        ["mendBlindSpot"] = ClassStaff,
        ["makeFolder"] = ClassStaff,
        ["changeFolder"] = ClassStaff,
        ["binFolder"] = ClassStaff,
        ["whoSeesFolder"] = ClassStaff,
        ["dropTree"] = ClassStaff,
        ["checkOpening"] = ClassStaff,
        ["changeAbout"] = ClassStaff,
        ["setWelcome"] = ClassStaff,
        ["welcomeTogether"] = ClassStaff,
        ["previewGiving"] = ClassStaff,
        ["give"] = ClassStaff,
        ["previewBinFolder"] = ClassStaff,
        ["takeZip"] = ClassStaff,
        ["folderZip"] = InClass,
        ["workspaceZip"] = InClass,
        ["addPage"] = InClass,
        ["readPage"] = InClass,
        ["changePage"] = InClass,
        ["renameItem"] = InClass,
        ["groups"] = ClassStaff,
        ["makeGroup"] = ClassStaff,
        ["makeGroupsOfGrades"] = ClassStaff,
        ["changeGroup"] = ClassStaff,
        ["binGroup"] = ClassStaff,
        ["offeredThings"] = ClassStaff,
        ["useThings"] = ClassStaff,
        ["bankCopies"] = ClassStaff,
        ["bankOffers"] = ClassStaff,
        ["takeFromBank"] = ClassStaff,
        ["changeAssignment"] = ClassStaff,
        ["activity"] = ClassStaff,
        ["phrases"] = Staff,
        ["keepPhrase"] = Staff,
        ["removePhrase"] = Staff,
        ["news"] = SignedIn,
        ["newsCount"] = SignedIn,
        ["seeNews"] = SignedIn,
        ["setNews"] = SignedIn,
        ["askToAcknowledge"] = ClassStaff,
        ["acknowledgements"] = ClassStaff,
        ["acknowledgementsOf"] = ClassStaff,
        ["acknowledge"] = [Student],
        ["askAnew"] = ClassStaff,
        ["remindToAcknowledge"] = ClassStaff,
        ["noteSignedPaper"] = ClassStaff,
        ["takeBackSignedPaper"] = ClassStaff,
        ["printPapersForHomes"] = ClassStaff,
        ["talk"] = InClass,
        ["setTalk"] = ClassStaff,
        ["writeMessage"] = InClass,
        ["hideMessage"] = ClassStaff,
        ["showMessage"] = ClassStaff,
        ["talkAnswered"] = ClassStaff,
        ["setTalkReader"] = ClassStaff,
        ["setTalkQuiet"] = ClassStaff,
        ["postNotice"] = ClassStaff,
        ["seeNotices"] = InClass,
        ["roster"] = ClassStaff,
        ["enroll"] = ClassStaff,
        ["readRosterPaste"] = ClassStaff,
        ["allOf"] = ClassStaff,
        ["slips"] = ClassStaff,
        ["slipsAsPdf"] = ClassStaff,
        ["renewSlips"] = ClassStaff,
        ["showSlips"] = ClassStaff,
        ["letClassHaveSlips"] = [Coordinator],
        ["removeFromRoster"] = ClassStaff,
        ["makeAssignment"] = ClassStaff,
        ["publishAssignment"] = ClassStaff,
        ["binAssignment"] = ClassStaff,
        ["returns"] = ClassStaff,
        ["previewReturnAll"] = ClassStaff,
        ["returnAll"] = ClassStaff,
        ["allWork"] = ClassStaff,
        ["work"] = ClassStaff,
        ["workFileContent"] = ClassStaff,
        ["mark"] = ClassStaff,
        ["previewAssignment"] = ClassStaff,
        ["withdrawAssignment"] = ClassStaff,
        ["publishMany"] = ClassStaff,
        ["exportScores"] = ClassStaff,
        ["scores"] = ClassStaff,
        ["readScores"] = ClassStaff,
        ["marking"] = ClassStaff,
        ["piece"] = ClassStaff,
        ["lookAtFile"] = ClassStaff,
        ["lookAtTurnFile"] = ClassStaff,
        ["judge"] = ClassStaff,
        ["comment"] = ClassStaff,
        ["returnWork"] = ClassStaff,
        ["closing"] = ClassStaff,
        ["run"] = ClassStaff,
        ["runEvents"] = ClassStaff,
        ["addOwnFile"] = [Student],
        ["ownFileContent"] = [Student],
        ["removeOwnFile"] = [Student],
        ["uploadForAssignment"] = ClassStaff,
        ["attachedThing"] = InClass,
        ["addOwnLink"] = [Student],
        ["addOwnPage"] = [Student],
        ["ownPage"] = [Student],
        ["changeOwnPage"] = [Student],
        ["handIn"] = [Student],
        ["takeBack"] = [Student],
        ["takeHome"] = InClass,
        ["openClass"] = Leads,
        ["lookAtOpening"] = Staff,
        ["openMany"] = Staff,
        ["draftsOfMany"] = Staff,
        ["publishOfMany"] = Staff,
        ["closeClass"] = Leads,
        ["readPackageAgain"] = Leads,
        ["schoolKeys"] = [Coordinator],
        ["package"] = Leads,
        ["restoreClass"] = Leads,
        ["previewRollover"] = Leads,
        ["rollOver"] = Leads,
        ["closingMatrix"] = Staff,
        ["planClosing"] = Staff,
        ["closingRoom"] = Staff,
        ["beginClosingRun"] = Staff,
        ["tellTeachers"] = Staff,
        ["closingRun"] = Staff,
        ["closingRunEvents"] = Staff,
        ["closingReport"] = Staff,
        ["closingReportCsv"] = Staff,
        ["signedClosingReport"] = Staff,
        ["wishOfRun"] = Staff,
        ["tryClosingAgain"] = Staff,
        ["gate"] = [Coordinator],
        ["signOff"] = [Coordinator],
        ["beginYear"] = [Coordinator],
        ["previewReturnMany"] = Staff,
        ["returnMany"] = Staff,
        ["homeLists"] = ClassStaff,
        ["homeListsAsPdf"] = ClassStaff,
        ["wallList"] = ClassStaff,
        ["cartridge"] = ClassStaff,
        ["takeCartridge"] = ClassStaff,
        ["structure"] = ClassStaff,
        ["takeStructure"] = ClassStaff,
        ["rollDesk"] = Staff,
        ["previewRollMany"] = Staff,
        ["rollMany"] = Staff,
        ["rollRun"] = Staff,
        ["undoRoll"] = Staff,
        ["keptCopies"] = Staff,
        ["keepCopy"] = ClassStaff,
        ["dropKeptCopy"] = Leads,
        ["setMayCopy"] = ClassStaff,
        ["takeHomes"] = Staff,
        ["makeTakeHomes"] = Staff,
        ["takeHomeRun"] = Staff,
        ["handOutTakeHome"] = [Coordinator],
        ["tryRunAgain"] = Staff,
        ["pageTogether"] = InClass,
        ["planTogether"] = [Coordinator],
        ["thingVersions"] = InClass,
        ["makeFolderInside"] = InClass,
        ["addPagesForGroups"] = ClassStaff,
        ["versionDifferences"] = InClass,
        ["thingVersion"] = InClass,
        ["bringBackVersion"] = InClass,
        ["ownTurnFile"] = InClass,
        ["ownReceipt"] = InClass,
        ["receipt"] = ClassStaff,
        ["turnFile"] = ClassStaff,
        ["classBin"] = InClass,
        ["bringBack"] = InClass,
        ["lookAtLettingGo"] = [Coordinator],
        ["lookAtMyLettingGo"] = SignedIn,
        ["letGoOfTakeHome"] = [Coordinator],
        ["letGoOfMyTakeHome"] = SignedIn,
        ["myTakeHomes"] = SignedIn,
        ["fetchTakeHome"] = SignedIn,
        ["searchPast"] = ClassStaff,
        ["lookAtPast"] = ClassStaff,
        ["tidy"] = ClassStaff,
        ["keepLoose"] = ClassStaff,
        ["unkeepLoose"] = ClassStaff,
        ["shelves"] = ClassStaff,
        ["previewShelf"] = ClassStaff,
        ["setShelf"] = Leads,
        ["showcase"] = ClassStaff,
        ["changeShelf"] = Leads,
        ["shutShelf"] = Leads,
        ["searchLoft"] = Staff,
        ["loftBin"] = [Coordinator],
        ["checkDeleting"] = [Coordinator],
        ["deleteArchived"] = [Coordinator],
        ["bringBackArchived"] = [Coordinator],
        ["readPackage"] = [Coordinator],
    };

    private static readonly IReadOnlyList<(string Id, string Method, string Path)> Endpoints = Read();

    public static TheoryData<string> Kinds => [.. Everybody];

    private static List<(string, string, string)> Read()
    {
        var file = Path.Combine(AppContext.BaseDirectory, "../../../../../client/src/api/openapi.json");
        using var document = JsonDocument.Parse(File.ReadAllText(file));
        return [.. document.RootElement.GetProperty("paths").EnumerateObject().SelectMany(p =>
            p.Value.EnumerateObject().Select(m => (m.Value.GetProperty("operationId").GetString()!, m.Name.ToUpperInvariant(), p.Name)))];
    }

    [Fact]
    public void Every_endpoint_of_the_document_is_in_the_table_and_the_other_way_round() => Endpoints.Select(e => e.Id).Order().ShouldBe(May.Keys.Order());

    [Theory]
    [MemberData(nameof(Kinds))]
    public async Task Each_kind_of_person_reaches_what_it_may_and_nothing_else(string kind)
    {
        using var http = kind == Nobody ? at.Server.Nobody() : await at.Server.As(kind);
        var wrong = new List<string>();
        // Signing out comes last, or the rest of the walk would be nobody's.
        foreach (var (id, method, path) in Endpoints.OrderBy(e => e.Id == "signOut"))
        {
            using var answer = await Ask(http, method, path);
            if (await LetThrough(id, answer) != May[id].Contains(kind)) wrong.Add($"{id}: {(int)answer.StatusCode} {await answer.Code()}");
        }
        wrong.ShouldBeEmpty();
    }

    // Bodies are empty and inner ids unknown on purpose: past the gate every answer is then a refusal of the use case or a
    // reading, and nothing is changed for the next one.
    private async Task<HttpResponseMessage> Ask(HttpClient http, string method, string path)
    {
        var address = path.Replace("{classId}", $"{at.School.Class.Value}", StringComparison.Ordinal);
        address = System.Text.RegularExpressions.Regex.Replace(address, @"\{\w+\}", "987654");
        if (path.Contains("unfolding", StringComparison.Ordinal)) address += "?plan=1&year=1";
        if (path.EndsWith("/preview", StringComparison.Ordinal) || path.EndsWith("/{combinedId}/return", StringComparison.Ordinal)) address += "?unmarkedToo=false";
        if (path.EndsWith("/directory", StringComparison.Ordinal)) address += "?students=true";
        if (path.EndsWith("/resources", StringComparison.Ordinal) || path.EndsWith("/rosters", StringComparison.Ordinal) || path.EndsWith("/deliveries/files", StringComparison.Ordinal)) address += "?year=987654";
        if (path.EndsWith("/loft/zips", StringComparison.Ordinal)) address += "?year=987654&apply=false";
        if (path.EndsWith("/structure", StringComparison.Ordinal) || path.EndsWith("/cartridge", StringComparison.Ordinal)) address += "?apply=false";
        if (path.Contains("/home-lists", StringComparison.Ordinal)) address += "?weeks=2&marks=true&nothingToo=true";
        if (path.EndsWith("/loft/search", StringComparison.Ordinal)) address += "?find=x";
        if (path.EndsWith("/scores/file", StringComparison.Ordinal)) address += "?format=Table";
        if (path.EndsWith("/resources/files", StringComparison.Ordinal)) address += "?apply=false";
        if ((method == "PUT" && path.EndsWith("/{assignmentId}", StringComparison.Ordinal)) || path.EndsWith("/{noticeId}", StringComparison.Ordinal) || (method == "PUT" && path.EndsWith("/{scaleId}", StringComparison.Ordinal))) address += "?version=1";
        var request = new HttpRequestMessage(new HttpMethod(method), address);
        if (method is "POST" or "PUT") request.Content = new StringContent("{}", Encoding.UTF8, path.EndsWith("/files", StringComparison.Ordinal) || path.EndsWith("/zips", StringComparison.Ordinal) || path.EndsWith("/cartridge", StringComparison.Ordinal) ? "application/octet-stream" : "application/json");
        return await http.SendAsync(request, HttpCompletionOption.ResponseHeadersRead);
    }

    private static async Task<bool> LetThrough(string id, HttpResponseMessage answer)
    {
        if (answer.StatusCode == HttpStatusCode.Unauthorized) return id == "signIn";
        var code = await answer.Code();
        if (code is "not-allowed" or "password-change-needed") return false;
        return !(code == "not-found" && (await answer.Json()).GetProperty("title").GetString()!.Contains("no such class here", StringComparison.Ordinal));
    }

    [Fact]
    public async Task Who_still_has_the_first_password_reaches_nothing_but_changing_it()
    {
        at.School.Add("fresh", SchoolRole.Coordinator, "New", "Coordinator");
        at.School.Premises.Db.Write(c => Dapper.SqlMapper.Execute(c, "UPDATE sign_in SET must_change = 1 WHERE person_id = (SELECT id FROM person WHERE user_name = 'fresh')"));
        using var http = await at.Server.As("fresh");
        foreach (var (id, method, path) in Endpoints.Where(e => e.Id is not ("signIn" or "signOut" or "me" or "changePassword" or "signIns" or "endSignIn" or "endOtherSignIns" or "secondStep" or "passSecondStep" or "askForPasskey" or "passByPasskey" or "providers" or "signOnTold" or "classCalendar")))
        {
            using var answer = await Ask(http, method, path);
            (await answer.Code()).ShouldBe("password-change-needed", id);
        }
        (await http.GetAsync("/api/me")).StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task A_sign_in_ends_for_good_when_the_password_is_changed_elsewhere()
    {
        at.School.Add("two-places", SchoolRole.Teacher, "Two", "Places");
        using var here = await at.Server.As("two-places");
        using var there = await at.Server.As("two-places");

        (await here.PostAsJsonAsync("/api/me/password", new { oldPassword = TinySchool.Password, newPassword = "blue-otter-walks" })).StatusCode.ShouldBe(HttpStatusCode.NoContent);

        (await there.GetAsync("/api/me")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await here.GetAsync("/api/me")).StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task An_address_that_is_not_there_is_explained_too()
    {
        using var http = await at.Server.As(Coordinator);

        var answer = await http.GetAsync("/api/nothing/of/the/kind");

        (answer.StatusCode, await answer.Code()).ShouldBe((HttpStatusCode.NotFound, "not-found"));
    }
}
