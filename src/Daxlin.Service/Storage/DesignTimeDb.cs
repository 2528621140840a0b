using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Design;

namespace Daxlin.Service.Storage;

/// <summary>For <c>dotnet ef migrations add</c> only; the running service makes its own.</summary>
internal sealed class DesignTimeDb : IDesignTimeDbContextFactory<DaxlinDb>
{
    public DaxlinDb CreateDbContext(string[] args) =>
        new(new DbContextOptionsBuilder<DaxlinDb>().UseSqlite("Data Source=design-time.db").Options);
}
