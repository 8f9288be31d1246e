namespace SpringLoft.App.Tests;

/// <summary>A fresh tiny school for every test.</summary>
public abstract class SchoolTest : IDisposable
{
    private protected readonly TinySchool school = new();

    private protected static string Refused(Action act) => Should.Throw<RefusedException>(act).Refusal.Code;

    private protected static async Task<string> Refused(Func<Task> act) => (await Should.ThrowAsync<RefusedException>(act)).Refusal.Code;

    public void Dispose()
    {
        school.Dispose();
        GC.SuppressFinalize(this);
    }
}
