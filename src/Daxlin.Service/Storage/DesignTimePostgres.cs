using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Design;

namespace Daxlin.Service.Storage;

/// <summary>For <c>dotnet ef migrations add … --context PostgresDb</c> only.</summary>
internal sealed class DesignTimePostgres : IDesignTimeDbContextFactory<PostgresDb>
{
    public PostgresDb CreateDbContext(string[] args) =>
        new(new DbContextOptionsBuilder<DaxlinDb>().UseNpgsql("Host=design-time").Options);
}
