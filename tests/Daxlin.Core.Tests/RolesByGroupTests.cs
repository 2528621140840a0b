using System.Collections.Immutable;
using Daxlin.Core.People;

namespace Daxlin.Core.Tests;

/// <summary>What an identity provider's groups give.</summary>
public class RolesByGroupTests
{
    private static RolesByGroup Of(params (string Group, string[] Roles)[] groups) => new(groups.ToImmutableSortedDictionary(one => one.Group, one => one.Roles.ToImmutableArray(), StringComparer.Ordinal));

    private static readonly RolesByGroup Department = Of(("AP clerks", ["clerk"]), ("AP approvers", ["approver", "clerk"]), ("IT", ["administrator"]));

    [Theory]
    [InlineData("", "")]
    [InlineData("Choir", "")]
    [InlineData("ap clerks", "")]
    [InlineData("AP clerks", "clerk")]
    [InlineData("IT,AP clerks,AP approvers,Choir,IT", "clerk approver administrator")]
    public void Roles_of_all_groups_add_up_each_once(string groups, string roles) =>
        Assert.Equal(roles, string.Join(' ', Department.Of(groups.Split(',')).Select(Roles.Word)));

    [Fact]
    public void A_group_gives_roles_that_there_are()
    {
        Assert.Null(Department.Fault());
        Assert.Equal("no group gives a role, so nobody could sign in.", Of().Fault());
        foreach (var roles in new string[][] { [], ["chief"], ["clerk", "chief"] })
            Assert.Equal($"the group “G” gives “{string.Join(", ", roles)}”; there are the roles clerk, approver, administrator and auditor.", Of(("G", roles)).Fault());
    }
}
