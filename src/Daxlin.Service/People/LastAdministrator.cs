using Daxlin.Core.People;
using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.People;

/// <summary>There is always one administrator left who can sign in; else nobody could look after people any more.</summary>
internal sealed class LastAdministrator(DaxlinDb db, ServiceSettings settings)
{
    /// <summary>Says that a person is the only one, and would not be it any more with other roles or disabled.</summary>
    public async Task<bool> WouldGo(Person person, IEnumerable<Role> roles, bool isDisabled, CancellationToken cancel) =>
        Is(person) && (isDisabled || !roles.Contains(Role.Administrator)) && !(await db.Users.AsNoTracking().Where(one => one.Id != person.Id).ToListAsync(cancel)).Exists(Is);

    /// <remarks>Who came by a provider that the service does not ask any more comes by it no more.</remarks>
    private bool Is(Person person) => person.MaySignIn && (person.PasswordHash is not null || settings.Provider is not null) && person.Roles.Contains(Role.Administrator);
}
