using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Metadata;
using Microsoft.EntityFrameworkCore.Storage;

namespace Daxlin.Service.Storage;

/// <summary>Stores rows by the thousand, by one command that is run for each: the context's own way takes ten times as long and keeps all of them in memory.</summary>
internal static class ManyRows
{
    /// <summary>Stores new rows in the transaction that the context is in. Numbers that the database gives are not read back.</summary>
    public static async Task Insert<T>(DaxlinDb db, IEnumerable<T> rows, CancellationToken cancel)
        where T : class
    {
        var type = db.Model.FindEntityType(typeof(T))!;
        IProperty[] properties = [.. type.GetProperties().Where(property => !(property.IsPrimaryKey() && property.ValueGenerated == ValueGenerated.OnAdd))];
        var names = db.GetService<ISqlGenerationHelper>();
        await using var command = db.Database.GetDbConnection().CreateCommand();
        command.Transaction = (db.Database.CurrentTransaction ?? throw new InvalidOperationException("Many rows are stored within a transaction, so that all of them are or none.")).GetDbTransaction();
#pragma warning disable CA2100 // Names of the model's own tables and columns.
        command.CommandText =
            $"INSERT INTO {names.DelimitIdentifier(type.GetTableName()!)} ({string.Join(", ", properties.Select(property => names.DelimitIdentifier(property.GetColumnName())))}) "
            + $"VALUES ({string.Join(", ", properties.Select((_, at) => $"@p{at}"))})";
#pragma warning restore CA2100
        var parameters = properties.Select((property, at) => property.GetRelationalTypeMapping().CreateParameter(command, $"@p{at}", null, property.IsNullable)).ToArray();
        command.Parameters.AddRange(parameters);
        await command.PrepareAsync(cancel);
        foreach (var row in rows)
        {
            for (var at = 0; at < properties.Length; at++)
            {
                var value = properties[at].GetGetter().GetClrValue(row);
                parameters[at].Value = (properties[at].GetTypeMapping().Converter is { } converter ? converter.ConvertToProvider(value) : value) ?? DBNull.Value;
            }
            await command.ExecuteNonQueryAsync(cancel);
        }
    }
}
