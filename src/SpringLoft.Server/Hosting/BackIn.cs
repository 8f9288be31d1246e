using System.Security.Cryptography;
using NodaTime;
using SpringLoft.App;
using SpringLoft.App.People;
using SpringLoft.Core.People;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store;
using SpringLoft.Store.Naming;
using SpringLoft.Store.People;

namespace SpringLoft.Server.Hosting;

/// <summary>
/// The way back in for a coordinator whom no other coordinator can help: whoever may write the data folder on the machine
/// itself gives them a new first password. It is in the audit trail as an act of the program's.
/// </summary>
internal static class BackIn
{
    /// <summary>Gives a coordinator a first password and says it.</summary>
    /// <param name="data">The data folder; the program must not be running on it.</param>
    /// <returns>The exit code: 0 if it was done, 1 if there is no such coordinator, 3 if the folder can't be had.</returns>
    internal static int Run(string data, string? userName, TextWriter say)
    {
        if (!File.Exists(DataFolder.DatabaseIn(data)))
        {
            say.WriteLine($"There is no school in {data}. Name the data folder in SPRING_LOFT_DATA.");
            return 3;
        }
        try
        {
            using var folder = DataFolder.Take(data);
            using var db = new Database(DataFolder.DatabaseIn(data), KeyRingSeal.Of(data));
            var person = userName is null ? null : db.Read(c => PersonStore.ByUserName(c, userName.Trim()));
            if (person is not { Role: SchoolRole.Coordinator, Active: true })
            {
                var coordinators = db.Read(PersonStore.Staff).Where(p => p.Role == SchoolRole.Coordinator).Select(p => p.UserName);
                say.WriteLine($"“{userName}” is no coordinator who can sign in. Coordinators here: {string.Join(", ", coordinators)}.");
                return 1;
            }
            var phrase = FirstPassword.Make(FirstPassword.DefaultRule, new(person.Given, person.Family, person.StudentNumber, person.Grade), RandomNumberGenerator.GetInt32);
            var now = SystemClock.Instance.GetCurrentInstant();
            db.Write(c =>
            {
                var step = SecondStepStore.End(c, person.Id);
                var accounts = ProviderAccountStore.ForgetAll(c, person.Id);
                PersonStore.SetPassword(c, person.Id, SigningIn.Hash(phrase), mustChange: true, null, now, phrase);
                Premises.Add(c, null, now, new("made a new slip", "person", person.Id.Value, null, $"{person.Name.Display}, on the server itself{(step ? ", and the second step taken away" : "")}{(accounts > 0 ? ", and accounts at providers forgotten" : "")}"));
            });
            say.WriteLine($"{person.Name.Display} signs in as {person.UserName} with the password {phrase}; it is asked to be changed.");
            return 0;
        }
        catch (DataFolderException e)
        {
            say.WriteLine(e.Message);
            return 3;
        }
    }
}
