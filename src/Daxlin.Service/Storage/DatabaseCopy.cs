using System.Collections.Immutable;
using System.Data;
using System.Globalization;
using System.Reflection;
using System.Security.Cryptography;
using System.Text;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Metadata;
using Microsoft.EntityFrameworkCore.Storage;

namespace Daxlin.Service.Storage;

/// <summary>Copies all rows of one database into another, of whichever kind both are, and proves that they are the same.</summary>
/// <remarks>
/// The proof is, for each table, the number of rows and the exclusive or of the SHA-256 of each row's values, read anew from both: it does not
/// hang on an order, which databases may see differently. Times count to the microsecond, which is what all of them keep.
/// </remarks>
internal static class DatabaseCopy
{
    /// <param name="from">Looked at as it is at one moment, whatever is changed meanwhile.</param>
    /// <param name="to">Of the same form, and empty.</param>
    /// <returns>How many rows each kind of thing has.</returns>
    /// <exception cref="StorageException">The copy is not the same; nothing of it is stored.</exception>
    public static async Task<ImmutableSortedDictionary<string, int>> Run(DaxlinDb from, DaxlinDb to, CancellationToken cancel)
    {
        await using var looking = await from.Database.BeginTransactionAsync(IsolationLevel.RepeatableRead, cancel);
        await using var storing = await to.Database.BeginTransactionAsync(cancel);
        var counts = ImmutableSortedDictionary.CreateBuilder<string, int>(StringComparer.Ordinal);
        foreach (var type in Tables(from.Model))
        {
            counts[type.GetTableName()!] = await (Task<int>)CopyOf.MakeGenericMethod(type.ClrType).Invoke(null, [from, to, cancel])!;
            if (to.Database.IsNpgsql())
                await GoOnBehind(type, to, cancel);
        }
        await storing.CommitAsync(cancel);
        return counts.ToImmutable();
    }

    /// <summary>What others refer to before those who do. What passes is left out.</summary>
    private static List<IEntityType> Tables(IModel model)
    {
        var (ordered, left) = (new List<IEntityType>(), model.GetEntityTypes().Where(type => !DaxlinDb.IsPassing(type.ClrType)).OrderBy(type => type.Name, StringComparer.Ordinal).ToList());
        while (left.Count > 0)
        {
            var next = left.First(type => type.GetForeignKeys().All(key => key.PrincipalEntityType == type || ordered.Contains(key.PrincipalEntityType)));
            ordered.Add(next);
            left.Remove(next);
        }
        return ordered;
    }

    private static readonly MethodInfo CopyOf = typeof(DatabaseCopy).GetMethod(nameof(Copy), BindingFlags.NonPublic | BindingFlags.Static)!;

    /// <returns>How many rows.</returns>
    private static async Task<int> Copy<T>(DaxlinDb from, DaxlinDb to, CancellationToken cancel)
        where T : class
    {
        await using (var insert = await ManyRows.Begin<T>(to, keepsNumbers: true, cancel))
        {
            await foreach (var row in from.Set<T>().AsNoTracking().AsAsyncEnumerable().WithCancellation(cancel))
                await insert.Add(row, cancel);
        }
        var (before, after) = (await Proof<T>(from, cancel), await Proof<T>(to, cancel));
        return before == after ? after.Rows : throw new StorageException(
            "copy-differs", $"The copy is not the same as what was copied: {typeof(T).Name} has {before.Rows} rows there and {after.Rows} here, or rows differ. Nothing was stored.");
    }

    private static async Task<(int Rows, string Hash)> Proof<T>(DaxlinDb of, CancellationToken cancel)
        where T : class
    {
        IProperty[] properties = [.. of.Model.FindEntityType(typeof(T))!.GetProperties().OrderBy(property => property.Name, StringComparer.Ordinal)];
        var (rows, all) = (0, new byte[SHA256.HashSizeInBytes]);
        await foreach (var row in of.Set<T>().AsNoTracking().AsAsyncEnumerable().WithCancellation(cancel))
        {
            var text = new StringBuilder();
            foreach (var property in properties)
            {
                var value = Text(property.GetGetter().GetClrValue(row));
                text.Append(CultureInfo.InvariantCulture, $"{value.Length}:{value}");
            }
            foreach (var (at, part) in SHA256.HashData(Encoding.UTF8.GetBytes(text.ToString())).Index())
                all[at] ^= part;
            rows++;
        }
        return (rows, Convert.ToHexStringLower(all));
    }

    private static string Text(object? value) => value switch
    {
        null => "-",
        DateTime time => (time.Ticks / TimeSpan.TicksPerMicrosecond).ToString(CultureInfo.InvariantCulture),
        DateTimeOffset time => (time.UtcTicks / TimeSpan.TicksPerMicrosecond).ToString(CultureInfo.InvariantCulture),
        byte[] bytes => Convert.ToHexStringLower(SHA256.HashData(bytes)),
        IFormattable one => one.ToString(null, CultureInfo.InvariantCulture),
        _ => value.ToString() ?? "",
    };

    /// <summary>The next number that the server gives is one behind the last that was copied.</summary>
    private static async Task GoOnBehind(IEntityType type, DaxlinDb db, CancellationToken cancel)
    {
        if (type.FindPrimaryKey() is not { Properties: [{ ValueGenerated: ValueGenerated.OnAdd } key] })
            return;
        var names = db.GetService<ISqlGenerationHelper>();
        var (table, column) = (names.DelimitIdentifier(type.GetTableName()!), names.DelimitIdentifier(key.GetColumnName()));
#pragma warning disable EF1002 // Names of the model's own tables and columns.
        await db.Database.ExecuteSqlRawAsync($"SELECT setval(pg_get_serial_sequence('{table}', '{key.GetColumnName()}'), COALESCE(MAX({column}), 0) + 1, false) FROM {table}", cancel);
#pragma warning restore EF1002
    }
}
