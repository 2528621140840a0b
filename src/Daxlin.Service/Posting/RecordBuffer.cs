using System.Text.Json;
using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Storage;

namespace Daxlin.Service.Posting;

/// <summary>Some stored records in UTF-8, one behind the other in memory that is used again for the next.</summary>
/// <remarks>
/// A run reads half a gigabyte of them for 10,000 invoices. As texts each would be twice as large, and be copied once more to be hashed; as
/// arrays of their own they would take the collector as long as half of the reading.
/// </remarks>
internal sealed class RecordBuffer
{
    private const int FirstSize = 1 << 20;

    private readonly Dictionary<int, (int At, int Length)> places = [];
    private byte[] bytes = new byte[FirstSize];
    private int used;

    public ReadOnlySpan<byte> this[int id] => places.TryGetValue(id, out var place) ? bytes.AsSpan(place.At, place.Length)
        : throw new KeyNotFoundException($"There is no record of invoice {id}.");

    /// <summary>Takes the records of some invoices in the place of those that it holds.</summary>
    public async Task Fill(DaxlinDb db, int[] ids, CancellationToken cancel)
    {
        places.Clear();
        used = 0;
        await db.Database.OpenConnectionAsync(cancel);
        try
        {
            await using var command = db.Database.GetDbConnection().CreateCommand();
            command.Transaction = db.Database.CurrentTransaction?.GetDbTransaction();
            command.CommandText = "SELECT \"Id\", \"Record\" FROM \"InvoiceRecords\" WHERE \"Id\" IN (SELECT value FROM json_each($ids))";
            var parameter = command.CreateParameter();
            (parameter.ParameterName, parameter.Value) = ("$ids", JsonSerializer.Serialize(ids));
            command.Parameters.Add(parameter);
            await using var reader = await command.ExecuteReaderAsync(cancel);
            while (await reader.ReadAsync(cancel))
            {
                await using var record = reader.GetStream(1);
                Take(reader.GetInt32(0), record);
            }
        }
        finally
        {
            await db.Database.CloseConnectionAsync();
        }
    }

    private void Take(int id, Stream record)
    {
        var length = (int)record.Length;
        if (bytes.Length - used < length)
            Array.Resize(ref bytes, Math.Max(used + length, bytes.Length * 2));
        record.ReadExactly(bytes, used, length);
        places[id] = (used, length);
        used += length;
    }
}
