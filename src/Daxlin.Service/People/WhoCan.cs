using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.People;

/// <summary>Names, in a refusal, those who can do what another may not.</summary>
internal static class WhoCan
{
    private const int MostNames = 5;

    /// <param name="otherwise">The sentence where nobody can.</param>
    public static async Task<string> Sentence(DaxlinDb db, Func<Person, bool> can, string otherwise, CancellationToken cancel)
    {
        var names = (await db.Users.AsNoTracking().OrderBy(person => person.UserName).ToListAsync(cancel)).Where(person => person.MaySignIn && can(person)).Select(person => person.Name).ToList();
        return names.Count == 0 ? otherwise : $"Those who can: {string.Join(", ", names.Take(MostNames))}{(names.Count > MostNames ? $", and {names.Count - MostNames} more" : "")}.";
    }
}
