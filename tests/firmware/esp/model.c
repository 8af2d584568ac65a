/* A model of what the emitted board layer of the ESP family calls, on this computer, and the time there.

   In, rows of text: `MS pin N LEVEL`, `MS adc CHANNEL RAW`, `MS byte VALUE`, `MS end`. Out, a row for each
   transfer: `US line PIN HEX` with the bytes as the lengths of its pulses say, `US spi HOST HEX`, `back HEX`;
   at the end `pulses ZERO ONE BIT`, in ns, of all that was sent. */
#include "stand_in.h"

#include <stdio.h>
#include <stdlib.h>
#include <string.h>

struct rmt_channel {
    int pin;
    uint32_t hz;
    int64_t busy_until_us;
};
struct rmt_encoder {
    rmt_bytes_encoder_config_t config;
};

static int64_t now_us;
static int levels[64], pulls[64], outputs[64], raws[16];
static gpio_isr_t handlers[64];
static uint8_t bytes[65536];
static int first_byte, last_byte, is_watched;
static int64_t fed_us;
static unsigned zero_ns, one_ns, bit_ns;
esp_event_base_t const WIFI_EVENT = "wifi";

static void fail(const char *what)
{
    fprintf(stderr, "the model: %s\n", what);
    exit(2);
}

void check(esp_err_t result, const char *what)
{
    if (result != ESP_OK) {
        fail(what);
    }
}

/* What happens up to now. */
static void happen(void)
{
    static char row[80];
    while (row[0] != 0 || fgets(row, sizeof row, stdin) != NULL) {
        double ms;
        char what[8];
        int which = 0, value = 0;
        if (sscanf(row, "%lf %7s %d %d", &ms, what, &which, &value) < 2) {
            fail(row);
        }
        if (ms * 1000.0 > (double)now_us) {
            return;
        }
        row[0] = 0;
        if (strcmp(what, "pin") == 0) {
            const int was = levels[which];
            levels[which] = value;
            pulls[which] = 0;
            if (was != value && handlers[which] != NULL) {
                handlers[which](NULL);
            }
        } else if (strcmp(what, "adc") == 0) {
            raws[which] = value;
        } else if (strcmp(what, "byte") == 0) {
            bytes[last_byte++ % sizeof bytes] = (uint8_t)which;
        } else if (strcmp(what, "end") == 0) {
            printf("pulses %u %u %u\n", zero_ns, one_ns, bit_ns);
            exit(0);
        } else {
            fail(row);
        }
    }
    fail("no end");
}

int64_t esp_timer_get_time(void)
{
    now_us++; /* so that whoever waits gets on */
    happen();
    return now_us;
}

void vTaskDelay(uint32_t ticks)
{
    if (is_watched && now_us - fed_us > 2000000) {
        fail("the watchdog has bitten");
    }
    for (uint32_t i = 0; i < 20u * ticks; i++) {
        now_us += 50;
        happen();
    }
}

esp_err_t esp_task_wdt_add(void *task)
{
    (void)task;
    is_watched = 1;
    fed_us = now_us;
    return ESP_OK;
}

esp_err_t esp_task_wdt_reset(void)
{
    fed_us = now_us;
    return ESP_OK;
}

esp_err_t gpio_config(const gpio_config_t *config)
{
    for (int pin = 0; pin < 64; pin++) {
        if ((config->pin_bit_mask >> pin & 1u) != 0u) {
            pulls[pin] = 1;
            levels[pin] = config->pull_up_en == GPIO_PULLUP_ENABLE;
        }
    }
    return ESP_OK;
}

esp_err_t gpio_set_direction(int pin, gpio_mode_t mode)
{
    return pin < 0 || mode != GPIO_MODE_INPUT_OUTPUT_OD;
}

esp_err_t gpio_pullup_en(int pin)
{
    return pin < 0;
}

esp_err_t gpio_set_level(int pin, uint32_t level)
{
    outputs[pin] = (int)level;
    return ESP_OK;
}

int gpio_get_level(int pin)
{
    return levels[pin];
}

esp_err_t gpio_install_isr_service(int flags)
{
    return flags;
}

esp_err_t gpio_isr_handler_add(int pin, gpio_isr_t handler, void *with)
{
    (void)with;
    handlers[pin] = handler;
    return ESP_OK;
}

esp_err_t rmt_new_tx_channel(const rmt_tx_channel_config_t *config, rmt_channel_handle_t *made)
{
    *made = calloc(1, sizeof **made);
    (*made)->pin = config->gpio_num;
    (*made)->hz = config->resolution_hz;
    return 80000000u % config->resolution_hz == 0u && config->mem_block_symbols >= 48u ? ESP_OK : 1;
}

esp_err_t rmt_new_bytes_encoder(const rmt_bytes_encoder_config_t *config, rmt_encoder_handle_t *made)
{
    *made = calloc(1, sizeof **made);
    (*made)->config = *config;
    return ESP_OK;
}

esp_err_t rmt_enable(rmt_channel_handle_t channel)
{
    return channel == NULL;
}

esp_err_t rmt_tx_wait_all_done(rmt_channel_handle_t channel, int ms)
{
    if (channel->busy_until_us > now_us + 1000 * ms) {
        return 1;
    }
    now_us = channel->busy_until_us > now_us ? channel->busy_until_us : now_us;
    return ESP_OK;
}

/* How long a symbol is high, ns: a pulse first, then a pause. */
static unsigned high_ns(rmt_symbol_word_t symbol, uint32_t hz)
{
    if (symbol.level0 != 1u || symbol.level1 != 0u) {
        fail("a bit is a pulse and then a pause");
    }
    bit_ns = (unsigned)((symbol.duration0 + symbol.duration1) * 1000000000ull / hz);
    return (unsigned)(symbol.duration0 * 1000000000ull / hz);
}

esp_err_t rmt_transmit(rmt_channel_handle_t channel, rmt_encoder_handle_t encoder, const void *from, size_t count,
    const rmt_transmit_config_t *config)
{
    const uint8_t *const byte = from;
    zero_ns = high_ns(encoder->config.bit0, channel->hz);
    one_ns = high_ns(encoder->config.bit1, channel->hz);
    if (channel->busy_until_us > now_us || config->loop_count != 0 || encoder->config.flags.msb_first != 1u) {
        return 1;
    }
    printf("%lld line %d ", (long long)now_us, channel->pin);
    for (size_t i = 0; i < count; i++) {
        printf("%02x", byte[i]);
    }
    printf("\n");
    channel->busy_until_us = now_us + (int64_t)(8u * count * bit_ns / 1000u);
    return ESP_OK;
}

esp_err_t spi_bus_initialize(spi_host_device_t host, const spi_bus_config_t *config, int dma)
{
    return host < SPI2_HOST || dma != SPI_DMA_CH_AUTO || config->miso_io_num != -1;
}

esp_err_t spi_bus_add_device(spi_host_device_t host, const spi_device_interface_config_t *config, spi_device_handle_t *made)
{
    *made = (spi_device_handle_t)(intptr_t)host;
    return config->mode != 0u || config->clock_speed_hz > 8000000;
}

esp_err_t spi_device_transmit(spi_device_handle_t device, spi_transaction_t *transaction)
{
    printf("%lld spi %d ", (long long)now_us, (int)(intptr_t)device);
    for (size_t i = 0; i < transaction->length / 8u; i++) {
        printf("%02x", ((const uint8_t *)transaction->tx_buffer)[i]);
    }
    printf("\n");
    return ESP_OK;
}

esp_err_t adc_oneshot_new_unit(const adc_oneshot_unit_init_cfg_t *config, adc_oneshot_unit_handle_t *made)
{
    *made = NULL;
    return config->unit_id != ADC_UNIT_1;
}

esp_err_t adc_oneshot_config_channel(adc_oneshot_unit_handle_t unit, adc_channel_t channel, const adc_oneshot_chan_cfg_t *config)
{
    return unit != NULL || channel > 9 || config->atten != ADC_ATTEN_DB_12;
}

esp_err_t adc_oneshot_read(adc_oneshot_unit_handle_t unit, adc_channel_t channel, int *raw)
{
    *raw = raws[channel];
    return unit != NULL;
}

esp_err_t uart_driver_install(int port, int rx, int tx, int queue, void *made, int flags)
{
    return port != UART_NUM_1 || rx < 256 || tx != 0 || queue != 0 || made != NULL || flags != 0;
}

esp_err_t uart_param_config(int port, const uart_config_t *config)
{
    return port != UART_NUM_1 || config->data_bits != UART_DATA_8_BITS;
}

esp_err_t uart_set_pin(int port, int tx, int rx, int rts, int cts)
{
    return port != UART_NUM_1 || tx == rx || rts != -1 || cts != -1;
}

int uart_read_bytes(int port, void *to, uint32_t count, uint32_t ticks)
{
    (void)port;
    (void)ticks;
    uint32_t taken = 0;
    while (taken < count && first_byte < last_byte) {
        ((uint8_t *)to)[taken++] = bytes[first_byte++ % sizeof bytes];
    }
    return (int)taken;
}

int uart_write_bytes(int port, const void *from, size_t count)
{
    (void)port;
    printf("back ");
    for (size_t i = 0; i < count; i++) {
        printf("%02x", ((const uint8_t *)from)[i]);
    }
    printf("\n");
    return (int)count;
}

esp_err_t uart_wait_tx_done(int port, uint32_t ticks)
{
    (void)ticks;
    return port != UART_NUM_1;
}

/* NVS: what was kept stands in a row of the output. */
static uint8_t blob[64];
static size_t blob_size;

esp_err_t nvs_flash_init(void)
{
    return ESP_OK;
}

esp_err_t nvs_flash_erase(void)
{
    return ESP_OK;
}

esp_err_t nvs_open(const char *name, int mode, nvs_handle_t *made)
{
    *made = 1u;
    return name == NULL || mode != NVS_READWRITE;
}

esp_err_t nvs_get_blob(nvs_handle_t at, const char *key, void *to, size_t *size)
{
    if (at != 1u || key == NULL || blob_size == 0u || *size < blob_size) {
        return 1;
    }
    memcpy(to, blob, blob_size);
    *size = blob_size;
    return ESP_OK;
}

esp_err_t nvs_set_blob(nvs_handle_t at, const char *key, const void *from, size_t size)
{
    if (at != 1u || key == NULL || size > sizeof blob) {
        return 1;
    }
    memcpy(blob, from, size);
    blob_size = size;
    return ESP_OK;
}

esp_err_t nvs_commit(nvs_handle_t at)
{
    printf("%lld kept 0 ", (long long)now_us);
    for (size_t i = 0; i < blob_size; i++) {
        printf("%02x", blob[i]);
    }
    printf("\n");
    return at != 1u;
}

int main(void)
{
    app_main();
    return 1;
}
