using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Storage;

/// <summary>The tables of people, their sign-ins and keys; of the framework's own, only those that are used have names of ours.</summary>
internal static class PeopleTables
{
    public static void Make(ModelBuilder modelBuilder)
    {
        modelBuilder.Entity<Person>().ToTable("People");
        modelBuilder.Entity<IdentityUserClaim<int>>().ToTable("PersonClaims");
        modelBuilder.Entity<IdentityUserLogin<int>>().ToTable("PersonLogins");
        modelBuilder.Entity<IdentityUserToken<int>>().ToTable("PersonTokens");
        modelBuilder.Entity<SignIn>(signIn =>
        {
            signIn.HasIndex(row => row.PersonId);
            signIn.HasOne<Person>().WithMany().HasForeignKey(row => row.PersonId);
        });
        modelBuilder.Entity<StandIn>(standIn =>
        {
            standIn.HasIndex(row => row.StandInId);
            standIn.HasOne<Person>().WithMany().HasForeignKey(row => row.AbsentId).OnDelete(Microsoft.EntityFrameworkCore.DeleteBehavior.Restrict);
            standIn.HasOne<Person>().WithMany().HasForeignKey(row => row.StandInId).OnDelete(Microsoft.EntityFrameworkCore.DeleteBehavior.Restrict);
        });
        modelBuilder.Entity<AccessKey>(key =>
        {
            key.HasIndex(row => row.Sha256).IsUnique();
            key.HasOne<Person>().WithMany().HasForeignKey(row => row.PersonId);
        });
    }
}
