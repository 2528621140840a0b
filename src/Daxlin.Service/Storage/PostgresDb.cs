using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Storage;

/// <summary>The database as its migrations for PostgreSQL know it; work is done on <see cref="DaxlinDb"/>.</summary>
internal sealed class PostgresDb(DbContextOptions<DaxlinDb> options) : DaxlinDb(options);
