/* What the emitted board layer of the ESP family calls, as far as it calls it: the same names, types and
   arguments as in the programming guide of ESP-IDF 5. model.c says what each does here. */
#ifndef STAND_IN_H
#define STAND_IN_H

#include <stdbool.h>
#include <stddef.h>
#include <stdint.h>

typedef int esp_err_t;
#define ESP_OK 0
void check(esp_err_t result, const char *what);
#define ESP_ERROR_CHECK(call) check((call), #call)

/* esp_timer.h, freertos, esp_task_wdt.h */
int64_t esp_timer_get_time(void);
void vTaskDelay(uint32_t ticks);
#define pdMS_TO_TICKS(ms) (ms)
typedef int portMUX_TYPE;
#define portMUX_INITIALIZER_UNLOCKED 0
#define portENTER_CRITICAL(lock) ((void)(lock))
#define portEXIT_CRITICAL(lock) ((void)(lock))
#define portENTER_CRITICAL_ISR(lock) ((void)(lock))
#define portEXIT_CRITICAL_ISR(lock) ((void)(lock))
esp_err_t esp_task_wdt_add(void *task);
esp_err_t esp_task_wdt_reset(void);

/* driver/gpio.h */
typedef enum { GPIO_MODE_INPUT = 1, GPIO_MODE_INPUT_OUTPUT_OD = 7 } gpio_mode_t;
typedef enum { GPIO_PULLUP_DISABLE, GPIO_PULLUP_ENABLE } gpio_pullup_t;
typedef enum { GPIO_PULLDOWN_DISABLE, GPIO_PULLDOWN_ENABLE } gpio_pulldown_t;
typedef enum { GPIO_INTR_DISABLE = 0, GPIO_INTR_ANYEDGE = 3 } gpio_int_type_t;
typedef struct {
    uint64_t pin_bit_mask;
    gpio_mode_t mode;
    gpio_pullup_t pull_up_en;
    gpio_pulldown_t pull_down_en;
    gpio_int_type_t intr_type;
} gpio_config_t;
typedef void (*gpio_isr_t)(void *);
esp_err_t gpio_config(const gpio_config_t *config);
esp_err_t gpio_set_direction(int pin, gpio_mode_t mode);
esp_err_t gpio_pullup_en(int pin);
esp_err_t gpio_set_level(int pin, uint32_t level);
int gpio_get_level(int pin);
esp_err_t gpio_install_isr_service(int flags);
esp_err_t gpio_isr_handler_add(int pin, gpio_isr_t handler, void *with);

/* driver/rmt_tx.h, driver/rmt_encoder.h */
typedef struct rmt_channel *rmt_channel_handle_t;
typedef struct rmt_encoder *rmt_encoder_handle_t;
typedef enum { RMT_CLK_SRC_DEFAULT } rmt_clock_source_t;
typedef struct {
    int gpio_num;
    rmt_clock_source_t clk_src;
    uint32_t resolution_hz;
    size_t mem_block_symbols, trans_queue_depth;
} rmt_tx_channel_config_t;
typedef struct {
    uint16_t duration0 : 15, level0 : 1, duration1 : 15, level1 : 1;
} rmt_symbol_word_t;
typedef struct {
    rmt_symbol_word_t bit0, bit1;
    struct {
        uint32_t msb_first : 1;
    } flags;
} rmt_bytes_encoder_config_t;
typedef struct {
    int loop_count;
} rmt_transmit_config_t;
esp_err_t rmt_new_tx_channel(const rmt_tx_channel_config_t *config, rmt_channel_handle_t *made);
esp_err_t rmt_new_bytes_encoder(const rmt_bytes_encoder_config_t *config, rmt_encoder_handle_t *made);
esp_err_t rmt_enable(rmt_channel_handle_t channel);
esp_err_t rmt_tx_wait_all_done(rmt_channel_handle_t channel, int ms);
esp_err_t rmt_transmit(rmt_channel_handle_t channel, rmt_encoder_handle_t encoder, const void *bytes, size_t count,
    const rmt_transmit_config_t *config);

/* driver/spi_master.h */
typedef int spi_host_device_t;
typedef struct spi_device *spi_device_handle_t;
enum { SPI2_HOST = 1, SPI3_HOST = 2, SPI_DMA_CH_AUTO = 3 };
typedef struct {
    int mosi_io_num, miso_io_num, sclk_io_num, quadwp_io_num, quadhd_io_num, max_transfer_sz;
} spi_bus_config_t;
typedef struct {
    uint8_t mode;
    int clock_speed_hz, spics_io_num, queue_size;
} spi_device_interface_config_t;
typedef struct {
    size_t length;
    const void *tx_buffer;
} spi_transaction_t;
esp_err_t spi_bus_initialize(spi_host_device_t host, const spi_bus_config_t *config, int dma);
esp_err_t spi_bus_add_device(spi_host_device_t host, const spi_device_interface_config_t *config, spi_device_handle_t *made);
esp_err_t spi_device_transmit(spi_device_handle_t device, spi_transaction_t *transaction);

/* esp_adc/adc_oneshot.h */
typedef struct adc_unit *adc_oneshot_unit_handle_t;
typedef int adc_channel_t;
enum { ADC_UNIT_1, ADC_ATTEN_DB_12 = 3, ADC_BITWIDTH_DEFAULT = 0 };
typedef struct {
    int unit_id;
} adc_oneshot_unit_init_cfg_t;
typedef struct {
    int atten, bitwidth;
} adc_oneshot_chan_cfg_t;
esp_err_t adc_oneshot_new_unit(const adc_oneshot_unit_init_cfg_t *config, adc_oneshot_unit_handle_t *made);
esp_err_t adc_oneshot_config_channel(adc_oneshot_unit_handle_t unit, adc_channel_t channel, const adc_oneshot_chan_cfg_t *config);
esp_err_t adc_oneshot_read(adc_oneshot_unit_handle_t unit, adc_channel_t channel, int *raw);

/* driver/uart.h */
enum { UART_NUM_1 = 1, UART_DATA_8_BITS = 3, UART_PARITY_DISABLE = 0, UART_STOP_BITS_1 = 1, UART_HW_FLOWCTRL_DISABLE = 0,
    UART_PIN_NO_CHANGE = -1 };
typedef struct {
    int baud_rate, data_bits, parity, stop_bits, flow_ctrl;
} uart_config_t;
esp_err_t uart_driver_install(int port, int rx, int tx, int queue, void *made, int flags);
esp_err_t uart_param_config(int port, const uart_config_t *config);
esp_err_t uart_set_pin(int port, int tx, int rx, int rts, int cts);
int uart_read_bytes(int port, void *to, uint32_t count, uint32_t ticks);
int uart_write_bytes(int port, const void *from, size_t count);
esp_err_t uart_wait_tx_done(int port, uint32_t ticks);

/* nvs_flash.h, esp_netif.h, esp_event.h, esp_wifi.h */
typedef const char *esp_event_base_t;
extern esp_event_base_t const WIFI_EVENT;
enum { ESP_EVENT_ANY_ID = -1, WIFI_EVENT_STA_START = 2, WIFI_EVENT_STA_DISCONNECTED = 5, WIFI_MODE_STA = 1, WIFI_IF_STA = 0,
    WIFI_PS_NONE = 0 };
typedef struct {
    int unused;
} wifi_init_config_t;
#define WIFI_INIT_CONFIG_DEFAULT() {0}
typedef struct {
    struct {
        uint8_t ssid[32], password[64];
    } sta;
} wifi_config_t;
typedef uint32_t nvs_handle_t;
enum { NVS_READWRITE = 1 };
esp_err_t nvs_open(const char *name, int mode, nvs_handle_t *made);
esp_err_t nvs_get_blob(nvs_handle_t at, const char *key, void *to, size_t *size);
esp_err_t nvs_set_blob(nvs_handle_t at, const char *key, const void *from, size_t size);
esp_err_t nvs_commit(nvs_handle_t at);
esp_err_t nvs_flash_init(void);
esp_err_t nvs_flash_erase(void);
esp_err_t esp_netif_init(void);
esp_err_t esp_event_loop_create_default(void);
void *esp_netif_create_default_wifi_sta(void);
esp_err_t esp_wifi_init(const wifi_init_config_t *with);
esp_err_t esp_event_handler_register(esp_event_base_t base, int32_t id,
    void (*handler)(void *, esp_event_base_t, int32_t, void *), void *with);
esp_err_t esp_wifi_set_mode(int mode);
esp_err_t esp_wifi_set_config(int which, wifi_config_t *config);
esp_err_t esp_wifi_set_ps(int mode);
esp_err_t esp_wifi_start(void);
esp_err_t esp_wifi_connect(void);
#define CONFIG_LIGHT_WIFI_NAME "bench"
#define CONFIG_LIGHT_WIFI_PASSWORD "a password"

void app_main(void);

#endif
